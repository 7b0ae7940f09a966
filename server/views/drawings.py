"""Which drawing is asked for, and having it made. A drawing is known by its key alone: whoever asks for that
key gets it, and what has another key is out of date."""

from __future__ import annotations

import contextlib

from django.db import transaction
from django.db.models import ProtectedError, QuerySet

from drafting.errors import ViewError
from drafting.linework.model import linework_key
from drafting.views.received import Received
from drafting.views.spec import AnyView, dump_view, parse_view_spec
from server.buildings.models import ModelVersion, newest_version
from server.common import storage
from server.common.pruning import is_old
from server.common.readable import readable
from server.jobs import services as jobs
from server.jobs.models import Job
from server.jobs.runner import Work
from server.projects.models import Project
from server.views.models import DrawJob, Drawn, Linework, View
from server.views.signals import linework_ready, view_changed


def version_for(view: View) -> ModelVersion | None:
    """The model version that a view is drawn from: the newest, or its own while it is held; of a drawing from
    others none."""
    if view.is_received:
        return None
    return view.drawn_from if view.held and view.drawn_from else newest_version(view.project)


def newest_or_refuse(project: Project) -> ModelVersion:
    """The newest model version.

    Raises:
        ViewError: the project has no model.
    """
    newest = newest_version(project)
    if newest is None:
        raise ViewError("There is no model to draw from yet. Import a building file first.")
    return newest


def state_of(drawn: Drawn, view: View) -> str:
    """How a drawing of a view stands, one of STATES."""
    if drawn.linework_id is None:
        return "undrawn"
    if view.held:
        return "held"
    return "up_to_date" if drawn.linework_id == drawn.wanted else "out_of_date"


def order_drawing(view: View) -> Job | None:
    """Ask for a view as it is now, and for what draws it otherwise. The job that makes its drawing; None
    where that is there already, or there is no model."""
    job = order(view, view, view.shown_with({}))
    view_changed.send(View, view=view)
    return job


def order(drawn: Drawn, view: View, spec: AnyView) -> Job | None:
    """Ask for a drawing. The job that makes it; None where it is there already, or there is no model."""
    version = version_for(view)
    if not ask_for(drawn, version, spec):
        return None
    running = jobs.active(Job.Kind.DRAW, drawn.wanted)
    if running:
        return running
    with transaction.atomic():
        job = jobs.start(view.project, Job.Kind.DRAW, view.name, drawn.wanted)
        DrawJob.objects.create(job=job, model_version=version, spec=dump_view(spec))
    return job


def ask_for(drawn: Drawn, version: ModelVersion | None, spec: AnyView) -> bool:
    """Write down which drawing is asked for; it is taken where it is there already. Whether it is still to be
    made."""
    wanted = _key(version, spec)
    there = Linework.objects.filter(pk=wanted).first() if wanted else None
    rows = type(drawn)._default_manager.filter(pk=drawn.pk)
    drawn.wanted = wanted
    if there is None:
        rows.update(wanted=wanted)
        return bool(wanted)
    drawn.linework, drawn.drawn_from = there, version
    rows.update(wanted=wanted, linework=there, drawn_from=version)
    return False


def _key(version: ModelVersion | None, spec: AnyView) -> str:
    """The key of a drawing; blank where there is nothing to draw from."""
    if isinstance(spec, Received):
        return linework_key(spec.file, spec)
    return linework_key(version.building, spec) if version else ""


def order_all_out_of_date(project: Project) -> list[Job]:
    """Bring every view of a project up to date, but for those that are held.

    Raises:
        ViewError: the project has no model.
    """
    newest_or_refuse(project)
    views = View.objects.filter(project=project, held=False).select_related("subset", "project")
    behind = (view for view in views if state_of(view, view) != "up_to_date")
    found = (order_drawing(view) for view, _ in readable(behind, View.check_stored))
    return [job for job in found if job is not None]


def follow_version(version: ModelVersion) -> None:
    """A new model version: every view that is not held asks for its drawing from then on."""
    views: QuerySet[View] = View.objects.filter(project=version.project).select_related("subset")
    for view, _ in readable(views, View.check_stored):
        if not view.held:
            ask_for(view, version, view.shown_with({}))
        view_changed.send(View, view=view, only_ask=True)


def draw(job: Job, work: Work) -> None:
    """Make the drawing of a job, unless it is there already, and give it to all that ask for it."""
    order_row = job.draw_job
    version = order_row.model_version
    linework = Linework.objects.filter(pk=job.subject).first()
    made = storage.temporary_path(".linework.gz")
    try:
        if linework is None:
            spec = dump_view(parse_view_spec(order_row.spec))
            task = "drawings:draw_view" if version else "drawings:draw_received"
            source = storage.path_of(version.building if version else spec["file"])
            facts = work.run(task, source, spec, made)
            linework = Linework(key=job.subject, file=storage.store(made), **facts)
        with transaction.atomic():
            linework.save()
            View.objects.filter(wanted=linework.key).update(linework=linework, drawn_from=version)
            linework_ready.send(Linework, linework=linework, version=version)
    finally:
        made.unlink(missing_ok=True)


def prune_linework() -> None:
    """Delete drawings that nothing has any more, once they are old: a change that is undone finds its own."""
    unused = Linework.objects.exclude(pk__in=View.objects.exclude(linework=None).values("linework"))
    for linework in unused:
        if is_old(storage.path_of(linework.file)):
            with contextlib.suppress(ProtectedError):  # something else is drawn by it
                linework.delete()
