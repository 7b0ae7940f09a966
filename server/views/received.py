"""Drawings from others: their files, and what there is to know of each before it is placed."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.core.files.uploadedfile import UploadedFile
from django.db import transaction

from drafting.errors import ReceivedFileError, ViewError
from drafting.received.facts import MAX_BYTES
from drafting.views.received import Received
from drafting.views.spec import AnyView
from server.common import storage
from server.jobs import services as jobs
from server.jobs.models import Job
from server.jobs.runner import Work
from server.projects.models import Project
from server.projects.room import require_room
from server.views.models import ReceivedFile, ReceiveJob


def receive(project: Project, upload: UploadedFile[Any]) -> Job:
    """Take a DXF, an SVG or a PDF and look at it. It is there when that is done, and not at all when it
    fails.

    Raises:
        ReceivedFileError: the file is too large.
    """
    name, size = Path(upload.name or "drawing").name[:250], upload.size or 0
    if size > MAX_BYTES:
        raise ReceivedFileError(
            f"“{name}” has {size / 1e6:.0f} MB and the limit is {MAX_BYTES / 1e6:.0f} MB. Export the part "
            "that is needed."
        )
    require_room(project, name, size)
    waiting = storage.write_chunks(upload.chunks(), ".received")
    with transaction.atomic():
        job = jobs.start(project, Job.Kind.RECEIVE, name, long=True)
        ReceiveJob.objects.create(job=job, name=name, waiting=waiting.name)
    return job


def look(job: Job, work: Work) -> None:
    """Look at the file of a job, and keep it."""
    order = job.receive_job
    waiting = storage.temporary_folder() / order.waiting
    facts = work.run("drawings:look_at_received", waiting, order.name)
    ReceivedFile.objects.create(
        project=job.project, name=order.name, file=storage.store(waiting), facts=facts, job=job.pk
    )


def clean_up(job: Job, work: Work) -> None:
    """Put the file of a job away that came to nothing."""
    order = ReceiveJob.objects.filter(job=job).first()
    if order is not None:
        (storage.temporary_folder() / order.waiting).unlink(missing_ok=True)


def check_file(project: Project, view: AnyView) -> None:
    """Refuse a view of a file that the project does not have.

    Raises:
        ViewError: there is none.
    """
    if (
        isinstance(view, Received)
        and not ReceivedFile.objects.filter(project=project, file=view.file).exists()
    ):
        raise ViewError(f"“{view.name}” is not among the files of this project. Bring it in again.")
