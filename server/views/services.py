"""Making and changing views, subsets and line settings."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import chain, count
from typing import Any

from django.db import transaction
from django.db.models import Max

from drafting.building.axes import Axes, between
from drafting.errors import ViewError
from drafting.views.moved import in_new_axes, on_paper
from drafting.views.spec import AnyView, dump_view, parse_view_spec
from drafting.views.standard import missing_from, plain_set, standard_set
from drafting.views.titles import title_in
from server.buildings.models import ModelVersion, newest_version
from server.common.readable import readable
from server.common.rows import Memo, RowService
from server.projects.models import Project
from server.views import drawings, received
from server.views.models import NamedLineSettings, Subset, View
from server.views.signals import axes_changed, view_changed


class ViewService(RowService[View]):
    model = View

    def prepare(self, values: dict[str, Any], memo: Memo) -> None:
        project = values["project"]
        if not values.get("name"):
            values["name"] = free_name(
                project, title_in(parse_view_spec(values["spec"]), project.title_language)
            )
        values.setdefault("position", next_position(project))
        number = values.pop("drawn_from", None)
        if values.get("held"):
            # A held view that is restored stays with its version.
            values["drawn_from"] = ModelVersion.objects.filter(project=project, number=number).first()

    def check(self, row: View, changed: set[str], memo: Memo) -> None:
        if "spec" in changed:
            received.check_file(row.project, row.as_core)
        if row.is_received and (row.held or row.subset_id):
            raise ViewError(
                "A drawing from others follows no model: it is neither held nor limited to a subset."
            )

    def created(self, row: View, memo: Memo) -> None:
        drawings.order_drawing(row)

    def updated(self, row: View, before: View, changed: set[str], memo: Memo) -> None:
        released = before.held and not row.held
        if released and before.drawn_from and (newest := newest_version(row.project)):
            _tell_in_axes(row, between(before.drawn_from.axes, newest.axes))
        if released or row.spec != before.spec or row.subset_id != before.subset_id:
            drawings.order_drawing(row)
        elif row.appearance != before.appearance:
            view_changed.send(View, view=row)


class SubsetService(RowService[Subset]):
    """Views that are limited to a subset follow it; when it goes, they show everything."""

    model = Subset

    def updated(self, row: Subset, before: Subset, changed: set[str], memo: Memo) -> None:
        if row.elements != before.elements:
            self._order(list(row.views.all()))

    def deleting(self, row: Subset) -> list[Any]:
        return [view.pk for view in row.views.all()]

    def deleted(self, row: Subset, known: list[Any]) -> None:
        self._order(list(View.objects.filter(pk__in=known)))

    def _order(self, views: Sequence[View]) -> None:
        for view in views:
            drawings.order_drawing(view)


class LineSettingsService(RowService[NamedLineSettings]):
    model = NamedLineSettings


view_service, subset_service, line_settings_service = ViewService(), SubsetService(), LineSettingsService()


def follow_axes(version: ModelVersion) -> None:
    """Where a new model version has other axes than the one before, tell each view in them, so that it looks
    where it looked. Views that are held stay with their version."""
    before = version.project.model_versions.get(number=version.number - 1)
    axes = between(before.axes, version.axes)
    views = View.objects.filter(project=version.project, held=False)
    for view, _ in readable(views, View.check_stored):
        if not view.is_received:
            _tell_in_axes(view, axes)


def _tell_in_axes(view: View, axes: Axes) -> None:
    """Tell a view in other axes, and with it whatever shows it."""
    if axes == Axes():
        return
    spec = view.as_core
    axes_changed.send(View, view=view, where=on_paper(spec, axes))
    moved = dump_view(in_new_axes(spec, axes))
    if moved != view.spec:
        view.spec, view.version = moved, view.version + 1
        view.save(update_fields=["spec", "version"])


def make_plain_views(version: ModelVersion) -> None:
    """A plan for each storey, the roof plan and four elevations, and have them drawn."""
    make_views(version.project, plain_set(version.storeys))


def make_standard_views(project: Project) -> list[View]:
    """What is missing of the standard set: plans, roof plan, elevations, axonometrics. Nothing is made twice.

    Raises:
        ViewError: the project has no model.
    """
    newest = drawings.newest_or_refuse(project)
    views = View.objects.filter(project=project)
    there = [spec for _, spec in readable(views, lambda view: view.as_core)]
    return make_views(project, missing_from(standard_set(newest.storeys), there))


@transaction.atomic
def make_views(project: Project, specs: Sequence[AnyView]) -> list[View]:
    """Make views, each under its usual name, and have them drawn."""
    memo: Memo = {}
    return [view_service.create({"project": project, "spec": dump_view(spec)}, memo) for spec in specs]


def free_name(project: Project, wanted: str) -> str:
    """A name for a view that no other of its project has: as wanted, or counted on from it."""
    taken = set(View.objects.filter(project=project, name__startswith=wanted).values_list("name", flat=True))
    names = chain([wanted], (f"{wanted} {number}" for number in count(2)))
    return next(name for name in names if name not in taken)


def next_position(project: Project) -> int:
    """Where a new view stands: after all others."""
    last = View.objects.filter(project=project).aggregate(Max("position"))["position__max"]
    return 0 if last is None else last + 1


@transaction.atomic
def change_settings(
    views: Sequence[View], line_settings: dict[str, Any], shown: dict[str, Any]
) -> list[View]:
    """Give several views the same settings; what is not named stays as each view has it. All change or none
    does.

    Raises:
        ViewError: a setting is wrong, or does not suit a view.
    """
    changed = []
    for view in views:
        given = {
            **view.spec,
            "line_settings": view.spec.get("line_settings", {}) | line_settings,
            "shown": view.spec.get("shown", {}) | shown,
        }
        spec = dump_view(parse_view_spec(given))
        if spec != view.spec:
            view = view_service.update(view, {"spec": spec}, view.version)
        changed.append(view)
    return changed
