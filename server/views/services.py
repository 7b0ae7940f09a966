"""Making and drawing views."""

from __future__ import annotations

from django.db import transaction

from drafting.errors import ViewError
from drafting.linework.model import linework_key
from drafting.views.spec import SIDES, ViewSpec
from server.buildings.models import ModelVersion, newest_version
from server.config import storage
from server.jobs import services as jobs
from server.jobs.models import Job
from server.projects.models import Project
from server.views.models import Linework, View


def make_plain_views(version: ModelVersion) -> None:
    """A plan for each storey, the roof plan and four elevations, and have them drawn."""
    specs = [ViewSpec("plan", storey=storey["name"]) for storey in version.facts["storeys"]]
    specs += [ViewSpec("roof"), *(ViewSpec("elevation", side=side) for side in SIDES)]
    for position, spec in enumerate(specs):
        view = View.objects.create(project=version.project, name=spec.title, spec=spec.as_dict(), position=position)
        order_drawing(view)


def state_of(view: View, newest: ModelVersion | None) -> str:
    """How the drawing of a view stands to the newest model version."""
    if view.linework_id is None:
        return "undrawn"
    return "fresh" if newest is not None and view.drawn_from_id == newest.pk else "behind"


def order_drawing(view: View) -> Job:
    """Have a view drawn from the newest model version; what is being drawn already is not ordered again.

    Raises:
        ViewError: the project has no model.
    """
    newest = newest_version(view.project)
    if newest is None:
        raise ViewError("There is no model to draw from yet. Bring a building file in first.")
    order = {"view": str(view.pk), "model_version": newest.pk, "spec": view.spec}
    under_way = Job.objects.filter(
        project=view.project, kind=Job.Kind.DRAW, order=order, state__in=(Job.State.WAITING, Job.State.RUNNING)
    ).first()
    return under_way or jobs.start(view.project, Job.Kind.DRAW, view.name, order)


def order_all_behind(project: Project) -> list[Job]:
    """Bring every view of a project up to date."""
    newest = newest_version(project)
    return [order_drawing(view) for view in View.objects.filter(project=project) if state_of(view, newest) != "fresh"]


def draw(job: Job, work: jobs.Work) -> None:
    """Draw the view of a job, unless the very drawing is kept already."""
    version = ModelVersion.objects.get(pk=job.order["model_version"])
    spec = ViewSpec.from_dict(job.order["spec"])
    key = linework_key(version.building, spec)
    linework = Linework.objects.filter(pk=key).first()
    made = storage.workplace(".json.gz")
    try:
        if linework is None:
            facts = work.run("draw_view", storage.path_of(version.building), spec.as_dict(), made)
            file = storage.keep(made)
            linework = Linework(key=key, file=file, **facts)
        with transaction.atomic():
            linework.save()
            # A view that was changed or deleted meanwhile keeps what it has.
            View.objects.filter(pk=job.order["view"], spec=job.order["spec"]).update(
                linework=linework, drawn_from=version
            )
    finally:
        made.unlink(missing_ok=True)
