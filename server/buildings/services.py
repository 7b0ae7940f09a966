"""Bringing a building file in."""

from __future__ import annotations

from pathlib import Path
from typing import Any

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


def bring_in(project: Project, upload: UploadedFile, user: AbstractBaseUser, unit: str | None = None) -> Job:
    """Take a file in and start reading it. It becomes a version when that is done, and nothing when it fails.

    `unit` is that of its figures, blank for what the file says; the project remembers it, and where none
    is given it is the one that the project remembers.

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
    if unit is not None and unit != project.model_unit:
        project.model_unit = unit
        project.save(update_fields=["model_unit"])
    order = {"file_name": name, "file_size": size, "waiting": waiting.name, "user": user.pk, "unit": project.model_unit}
    return jobs.start(project, Job.Kind.READ, name, order)


def read(job: Job, work: jobs.Work) -> None:
    """Read the file of a job and make it the newest version. The first version gets the plain views."""
    waiting = storage.workplace().with_name(job.order["waiting"])
    made, solid_made = storage.workplace(".npz"), storage.workplace(".solid.gz")
    try:
        facts = work.run("read_model", waiting, made, job.order["file_name"], job.order["unit"])
        building, source = storage.keep(made), storage.keep(waiting)
        work.run("write_solid", storage.path_of(building), solid_made)
        solid = storage.keep(solid_made)
        before = newest_version(job.project)
        changes = before and work.run("compare_models", storage.path_of(before.building), storage.path_of(building))
        with transaction.atomic():
            newest = newest_version(job.project)
            version = ModelVersion.objects.create(
                project=job.project,
                number=newest.number + 1 if newest else 1,
                file_name=job.order["file_name"],
                file_size=job.order["file_size"],
                source=source,
                building=building,
                solid=solid,
                facts=facts,
                changes=changes,
                created_by_id=job.order["user"],
            )
            if newest is None:
                views.make_plain_views(version)
    finally:
        made.unlink(missing_ok=True)
        solid_made.unlink(missing_ok=True)


def take_again(version: ModelVersion, user: AbstractBaseUser) -> ModelVersion:
    """Go back to an older version: it becomes the newest once more, under a number of its own, and nothing is lost.

    Raises:
        BuildingFileError: it is the newest already.
    """
    with transaction.atomic():
        newest = newest_version(version.project)
        if newest is None or newest.building == version.building:
            raise BuildingFileError(f"Version {version.number} is what the drawings follow already.")
        return ModelVersion.objects.create(
            project=version.project,
            number=newest.number + 1,
            file_name=version.file_name,
            file_size=version.file_size,
            source=version.source,
            building=version.building,
            solid=version.solid,
            facts=version.facts,
            changes=_turned(newest.changes) if newest.number == version.number + 1 else None,
            taken_from=version.number,
            created_by=user,
        )


def _turned(changes: dict[str, Any] | None) -> dict[str, Any] | None:
    """The changes of the way back."""
    return changes and {**changes, "added": changes["removed"], "removed": changes["added"]}


def tidy(job: Job, work: jobs.Work) -> None:
    """Nothing stays of a file that did not become a version."""
    storage.workplace().with_name(job.order["waiting"]).unlink(missing_ok=True)


def _megabytes(size: int) -> str:
    return f"{size / 1024 / 1024:.3g} MB"
