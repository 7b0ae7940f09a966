"""Making and drawing views."""

from __future__ import annotations

from itertools import chain, count
from typing import Any

from django.db import transaction
from django.db.models import Max

from drafting.errors import ViewError
from drafting.linework.model import linework_key
from drafting.views.spec import ViewSpec
from drafting.views.standard import missing_from, plain_set, standard_set
from server.buildings.models import ModelVersion, newest_version
from server.config import storage
from server.jobs import services as jobs
from server.jobs.models import Job
from server.projects.models import Project
from server.views.models import Linework, Subset, View


def make_plain_views(version: ModelVersion) -> None:
    """A plan for each storey, the roof plan and four elevations, and have them drawn."""
    make_views(version.project, plain_set([storey["name"] for storey in version.facts["storeys"]]))


def make_standard_views(project: Project) -> list[View]:
    """What is missing of the standard set: plans, roof plan, elevations, axonometrics. Nothing is made twice.

    Raises:
        ViewError: the project has no model.
    """
    newest = _newest(project)
    there = [ViewSpec.from_dict(view.spec) for view in View.objects.filter(project=project)]
    return make_views(project, missing_from(standard_set([s["name"] for s in newest.facts["storeys"]]), there))


def make_views(project: Project, specs: list[ViewSpec]) -> list[View]:
    """Make views, each under its usual name, and have them drawn."""
    with transaction.atomic():
        first = next_position(project)
        made = [
            View.objects.create(
                project=project, name=free_name(project, spec.title), spec=spec.as_dict(), position=first + k
            )
            for k, spec in enumerate(specs)
        ]
        for view in made:
            order_drawing(view)
    return made


def free_name(project: Project, wanted: str) -> str:
    """A name for a view that no other of its project has: as wanted, or counted on from it."""
    taken = set(View.objects.filter(project=project, name__startswith=wanted).values_list("name", flat=True))
    names = chain([wanted], (f"{wanted} {number}" for number in count(2)))
    return next(name for name in names if name not in taken)


def next_position(project: Project) -> int:
    """Where a new view stands: after all others."""
    last = View.objects.filter(project=project).aggregate(Max("position"))["position__max"]
    return 0 if last is None else last + 1


def treat(views: list[View], treatment: dict[str, Any], shown: dict[str, Any]) -> list[View]:
    """Give several views the same settings; what is not named stays as each view has it. All change or none does.

    Raises:
        ViewError: a setting is wrong, or does not suit a view.
    """
    with transaction.atomic():
        for view in views:
            given = {
                **view.spec,
                "treatment": view.spec.get("treatment", {}) | treatment,
                "shown": view.spec.get("shown", {}) | shown,
            }
            spec = ViewSpec.from_dict(given).as_dict()
            if spec != view.spec:
                view.spec = spec
                view.version += 1
                view.save(update_fields=["spec", "version"])
                order_drawing(view)
    return views


def state_of(view: View, newest: ModelVersion | None) -> str:
    """How the drawing of a view stands to the newest model version."""
    return _state(view, view.linework_id, view.drawn_from_id, newest)


def state_through(viewport: Any, newest: ModelVersion | None) -> str:
    """How the drawing that is seen through a viewport stands to the newest model version."""
    if viewport.own_linework_id is None:
        return state_of(viewport.view, newest)
    return _state(viewport.view, viewport.own_linework_id, viewport.own_drawn_from_id, newest)


def _state(view: View, linework: str | None, drawn_from: int | None, newest: ModelVersion | None) -> str:
    if linework is None:
        return "undrawn"
    if view.held:
        return "held"
    return "fresh" if newest is not None and drawn_from == newest.pk else "behind"


def order_drawing(view: View) -> Job:
    """Have a view drawn from the newest model version, and each of its viewports that shows something else of it.

    Raises:
        ViewError: the project has no model.
    """
    for viewport in view.viewports.exclude(shown={}):
        order_own_drawing(viewport)
    return _order(view, {"drawn": full_spec(view)})


def order_own_drawing(viewport: Any) -> Job:
    """Have a viewport drawn that shows something else than its view does.

    Raises:
        ViewError: the project has no model.
    """
    drawn = spec_through(viewport.view, viewport.shown)
    return _order(viewport.view, {"viewport": str(viewport.pk), "drawn": drawn})


def _order(view: View, what: dict[str, Any]) -> Job:
    """Start the job, unless the very same is waiting or under way."""
    newest = _newest(view.project)
    # A held view stays with its version, also when its own settings change.
    version = view.drawn_from_id if view.held and view.drawn_from_id else newest.pk
    order = {"view": str(view.pk), "model_version": version, "spec": view.spec, **what}
    under_way = Job.objects.filter(
        project=view.project, kind=Job.Kind.DRAW, order=order, state__in=(Job.State.WAITING, Job.State.RUNNING)
    ).first()
    return under_way or jobs.start(view.project, Job.Kind.DRAW, view.name, order)


def full_spec(view: View) -> dict[str, Any]:
    """What is drawn of a view: its own description, limited to the elements of its subset."""
    if view.subset is None:
        return view.spec
    return {**view.spec, "shown": {**view.spec.get("shown", {}), "only": view.subset.elements}}


def spec_through(view: View, shown: dict[str, Any]) -> dict[str, Any]:
    """What is drawn of a view for a viewport that shows something else: what it names takes the place of the view's.

    Raises:
        ViewError: something is named that a view cannot leave out.
    """
    spec = full_spec(view)
    return ViewSpec.from_dict({**spec, "shown": {**spec.get("shown", {}), **shown}}).as_dict()


def order_all_of(subset: Subset) -> None:
    """Have the views that are limited to a subset drawn anew."""
    if newest_version(subset.project):
        for view in View.objects.filter(subset=subset).select_related("subset", "project"):
            order_drawing(view)


def order_all_behind(project: Project) -> list[Job]:
    """Bring every view of a project up to date, but for those that are held.

    Raises:
        ViewError: the project has no model.
    """
    newest = _newest(project)
    views = View.objects.filter(project=project, held=False)
    return [order_drawing(view) for view in views if state_of(view, newest) != "fresh"]


def _newest(project: Project) -> ModelVersion:
    newest = newest_version(project)
    if newest is None:
        raise ViewError("There is no model to draw from yet. Bring a building file in first.")
    return newest


def draw(job: Job, work: jobs.Work) -> None:
    """Draw the view of a job, unless the very drawing is kept already."""
    version = ModelVersion.objects.get(pk=job.order["model_version"])
    spec = ViewSpec.from_dict(job.order["drawn"])
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
            view = View.objects.filter(pk=job.order["view"]).select_related("subset").first()
            # A view or viewport that was changed or deleted meanwhile keeps what it has.
            if view is None:
                return
            if "viewport" in job.order:
                for viewport in view.viewports.filter(pk=job.order["viewport"]):
                    if viewport.shown and spec_through(view, viewport.shown) == job.order["drawn"]:
                        view.viewports.filter(pk=viewport.pk).update(own_linework=linework, own_drawn_from=version)
            elif full_spec(view) == job.order["drawn"]:
                View.objects.filter(pk=view.pk).update(linework=linework, drawn_from=version)
    finally:
        made.unlink(missing_ok=True)
