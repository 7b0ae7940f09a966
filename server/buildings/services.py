"""Bringing a building file in."""

from __future__ import annotations

from pathlib import Path

from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser
from django.core.files.uploadedfile import UploadedFile
from django.db import transaction

from drafting.errors import BuildingFileError
from server.buildings.models import ModelVersion, newest_version
from server.config import storage
from server.jobs import services as jobs
from server.jobs.models import Job
from server.projects.models import Project
from server.views import services as views


def bring_in(project: Project, upload: UploadedFile, user: AbstractBaseUser) -> Job:
    """Take a file in and start reading it. It becomes a version when that is done, and nothing when it fails.

    Raises:
        BuildingFileError: the file is too large.
    """
    name, size = Path(upload.name or "model").name[:250], upload.size or 0
    if size > settings.MODEL_FILE_LIMIT:
        limit = settings.MODEL_FILE_LIMIT
        raise BuildingFileError(
            f"“{name}” has {_megabytes(size)} and the limit is {_megabytes(limit)}. "
            "Export it in parts, or without detail."
        )
    # The reader knows the form of a file by the ending of its own name, which the job keeps.
    waiting = storage.write_chunks(upload.chunks(), ".model")
    order = {"file_name": name, "file_size": size, "waiting": waiting.name, "user": user.pk}
    return jobs.start(project, Job.Kind.READ, name, order)


def read(job: Job, work: jobs.Work) -> None:
    """Read the file of a job and make it the newest version. The first version gets the plain views."""
    waiting = storage.workplace().with_name(job.order["waiting"])
    made = storage.workplace(".npz")
    try:
        facts = work.run("read_model", waiting, made, job.order["file_name"])
        building, source = storage.keep(made), storage.keep(waiting)
        with transaction.atomic():
            newest = newest_version(job.project)
            version = ModelVersion.objects.create(
                project=job.project,
                number=newest.number + 1 if newest else 1,
                file_name=job.order["file_name"],
                file_size=job.order["file_size"],
                source=source,
                building=building,
                facts=facts,
                created_by_id=job.order["user"],
            )
            if newest is None:
                views.make_plain_views(version)
    finally:
        made.unlink(missing_ok=True)


def tidy(job: Job, work: jobs.Work) -> None:
    """Nothing stays of a file that did not become a version."""
    storage.workplace().with_name(job.order["waiting"]).unlink(missing_ok=True)


def _megabytes(size: int) -> str:
    return f"{size / 1024 / 1024:.3g} MB"
