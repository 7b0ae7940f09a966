"""Importing building files, and going back to older versions."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.files.uploadedfile import UploadedFile
from django.db import transaction
from django.db.models import QuerySet

from drafting.building.likely import unlikely_size
from drafting.errors import BuildingFileError
from server.buildings.models import ImportJob, ModelVersion, newest_version
from server.buildings.signals import version_added
from server.common import storage
from server.jobs import services as jobs
from server.jobs.models import Job
from server.jobs.runner import Work
from server.projects.models import Project
from server.projects.room import megabytes, require_room

#: The building's zero may be moved so far at once; mm.
FARTHEST = 4e6
#: Where nothing is said of the ground.
AS_IT_IS = object()


def import_model(project: Project, upload: UploadedFile[Any], user: Any, unit: str | None = None) -> Job:
    """Take a file and start reading it. It becomes a version when that is done, and nothing when it fails.

    `unit` is that of its figures, blank for what the file says; the project remembers it, and where none is
    given it is the one that the project remembers.

    Raises:
        BuildingFileError: the file is too large.
    """
    name, size = Path(upload.name or "model").name[:250], upload.size or 0
    if size > settings.MODEL_FILE_LIMIT:
        limit = settings.MODEL_FILE_LIMIT
        raise BuildingFileError(
            f"“{name}” has {megabytes(size)} and the limit is {megabytes(limit)}. "
            "Export it in parts, or without detail."
        )
    require_room(project, name, size)
    # The reader knows the format of a file by the ending of its own name, which the job keeps.
    waiting = storage.write_chunks(upload.chunks(), ".model")
    with transaction.atomic():
        for asked in asked_in(project):
            drop(asked)
        if unit is not None and unit != project.model_unit:
            project.model_unit = unit
            project.save(update_fields=["model_unit"])
        job = jobs.start(project, Job.Kind.READ, name, long=True)
        before = newest_version(project)
        ImportJob.objects.create(
            job=job,
            file_name=name,
            file_size=size,
            waiting=waiting.name,
            unit=project.model_unit,
            # Drawings keep their place when a file comes again, however its walls are weighed.
            axes=before and before.facts.get("axes"),
            ground=before.facts.get("given", {}).get("ground") if before else None,
            imported_by=user,
        )
    return job


def read_again(
    version: ModelVersion,
    user: Any,
    turn: float | None,
    up: str,
    origin: Sequence[float] | None = None,
    ground: Any = AS_IT_IS,
) -> Job:
    """Read the file of the newest version once more, with other axes or another ground. It becomes a version
    when that is done.

    Args:
        turn: from the x axis of the file to the building's, degrees; None to find the axes anew.
        up: which axis of the file points up, blank for what it says or its shape tells.
        origin: x, y and z of the building's zero in the file, mm; None for what it is now.
        ground: the level of the ground where the file has no terrain, mm; None for none.

    Raises:
        BuildingFileError: it is not the newest, or the origin is far from the building.
    """
    project, given = version.project, version.facts.get("given", {"unit": "", "up": ""})
    if newest_version(project) != version:
        raise BuildingFileError(f"Version {version.number} is not the newest. Restore it first.")
    now = version.axes
    if origin is not None and max(abs(a - b) for a, b in zip(origin, now.origin, strict=True)) > FARTHEST:
        raise BuildingFileError(
            f"That is more than {FARTHEST / 1e6:g} km from where zero is now. Give a place at the building."
        )
    axes = {"origin": list(origin or now.origin), "turn": turn} if turn is not None else None
    if up != given["up"]:
        axes = None
    with transaction.atomic():
        job = jobs.start(project, Job.Kind.READ, version.file_name, long=True)
        ImportJob.objects.create(
            job=job,
            file_name=version.file_name,
            file_size=version.file_size,
            again=version,
            unit=given["unit"],
            up=up,
            axes=axes,
            ground=given.get("ground") if ground is AS_IT_IS else ground,
            imported_by=user,
        )
    return job


def read(job: Job, work: Work) -> None:
    """Read the file of a job and make it the newest version, unless its size has to be asked about first."""
    order = job.import_job
    waiting = storage.path_of(order.again.source) if order.again else _waiting(order)
    made, solid_made = storage.temporary_path(".npz"), storage.temporary_path(".solid.gz")
    data_made = storage.temporary_path(".data.gz")
    try:
        facts = work.run(
            "models:read_model",
            waiting,
            made,
            data_made,
            order.file_name,
            order.unit,
            order.up,
            order.axes,
            order.ground,
        )
        before = newest_version(job.project)
        if not order.sure and not order.again:
            question = unlikely_size(facts["size"], facts["unit"], before.facts["size"] if before else None)
            if question:
                order.asks = asdict(question)
                order.save(update_fields=["asks"])
                return
        building = storage.store(made)
        source = order.again.source if order.again else storage.store(waiting)
        work.run("models:write_solid", storage.path_of(building), solid_made)
        solid = storage.store(solid_made)
        changes = before and work.run(
            "models:compare_models", storage.path_of(before.building), storage.path_of(building)
        )
        _add_version(
            job.project,
            file_name=order.file_name,
            file_size=order.file_size,
            source=source,
            building=building,
            solid=solid,
            data=storage.store(data_made),
            facts=facts,
            changes=changes,
            created_by=order.imported_by,
        )
    finally:
        made.unlink(missing_ok=True)
        solid_made.unlink(missing_ok=True)
        data_made.unlink(missing_ok=True)


def asked_in(project: Project) -> QuerySet[ImportJob]:
    """Files of a project whose size has to be answered for before they become a version."""
    return ImportJob.objects.filter(job__project=project, asks__isnull=False)


def drop(asked: ImportJob) -> None:
    """Forget a file that was asked about."""
    asked.asks = None
    asked.save(update_fields=["asks"])
    transaction.on_commit(lambda: _waiting(asked).unlink(missing_ok=True))


def use(asked: ImportJob, user: Any, unit: str = "") -> Job:
    """Read a file that was asked about once more, now for good; `unit` is blank for the one that it was read
    in.

    Raises:
        BuildingFileError: it is not there any more.
    """
    if not _waiting(asked).exists():
        drop(asked)
        raise BuildingFileError(f"“{asked.file_name}” was not kept for so long. Import it again.")
    with transaction.atomic():
        asked.asks = None
        asked.save(update_fields=["asks"])
        project = asked.job.project
        if unit and unit != project.model_unit:
            project.model_unit = unit
            project.save(update_fields=["model_unit"])
        job = jobs.start(project, Job.Kind.READ, asked.file_name, long=True)
        ImportJob.objects.create(
            job=job,
            file_name=asked.file_name,
            file_size=asked.file_size,
            waiting=asked.waiting,
            unit=unit or asked.unit,
            up=asked.up,
            axes=asked.axes,
            ground=asked.ground,
            imported_by=user,
            sure=True,
        )
    return job


def restore_version(version: ModelVersion, user: Any) -> ModelVersion:
    """Go back to an older version: it becomes the newest once more, under a number of its own, and nothing is
    lost.

    Raises:
        BuildingFileError: it is the newest already.
    """
    with transaction.atomic():
        newest = newest_version(version.project)
        if newest is None or newest.building == version.building:
            raise BuildingFileError(f"Version {version.number} is the one that the drawings use already.")
        return _add_version(
            version.project,
            file_name=version.file_name,
            file_size=version.file_size,
            source=version.source,
            building=version.building,
            solid=version.solid,
            data=version.data,
            facts=version.facts,
            changes=_turned(newest.changes) if newest.number == version.number + 1 else None,
            restored_from=version.number,
            created_by=user,
        )


@transaction.atomic
def _add_version(project: Project, **facts: Any) -> ModelVersion:
    newest = newest_version(project)
    version = ModelVersion.objects.create(project=project, number=newest.number + 1 if newest else 1, **facts)
    version_added.send(ModelVersion, version=version, first=newest is None)
    return version


def _turned(changes: dict[str, Any] | None) -> dict[str, Any] | None:
    """The changes of the way back."""
    return changes and {**changes, "added": changes["removed"], "removed": changes["added"]}


def clean_up(job: Job, work: Work) -> None:
    """Nothing stays of a file that did not become a version."""
    if job.import_job.waiting:
        _waiting(job.import_job).unlink(missing_ok=True)


def _waiting(order: ImportJob) -> Path:
    return storage.temporary_folder() / order.waiting
