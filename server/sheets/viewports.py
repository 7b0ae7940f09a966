"""Making, changing and laying out viewports."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from django.db import transaction
from django.db.models import F, Q, QuerySet

from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.schema import parse
from drafting.shading.appearance import LINES_ONLY
from drafting.sheets.placing import place_view
from drafting.sheets.projection_layout import DrawnView, Projection, arrange
from drafting.sheets.scale import FEET_LADDER, LADDER, Scale
from drafting.sheets.viewport import Viewport as CoreViewport
from drafting.sheets.viewport import check_on_paper, check_viewport
from drafting.sheets.words import ENGLISH, SheetWords
from drafting.styles.pen_table import PenChanges
from drafting.views.moved import OnPaper
from server.common.readable import readable
from server.common.rows import Memo, RowService
from server.projects.models import Project
from server.sheets.models import Sheet, Viewport
from server.sheets.services import next_position, register_of
from server.sheets.shadow_areas import areas_in, is_lit, order_light
from server.views import drawings
from server.views.models import Linework, View

#: What makes up the geometry of a viewport, beside its scale; and what of it a pin holds.
GEOMETRY = ("x", "y", "width", "height", "centre_u", "centre_v")
PINNED = (*GEOMETRY, "shape", "corners", "turn", "scale", "view")
#: What of it makes a difference to its picture and its shadows: not where it stands.
LIT = {"width", "height", "centre_u", "centre_v", "turn", "scale", "view", "shown", "appearance"}


class ViewportService(RowService[Viewport]):
    model = Viewport
    to_project = "sheet__project"

    def prepare(self, values: dict[str, Any], memo: Memo) -> None:
        values.update(_geometry_for(values["view"], values["sheet"], values))
        values.setdefault("position", next_position(Viewport.objects.filter(sheet=values["sheet"])))

    def check(self, row: Viewport, changed: set[str], memo: Memo) -> None:
        viewport = as_core(row, 1)
        check_viewport(viewport)
        if changed & set(GEOMETRY):
            check_on_paper(viewport.box, row.sheet.as_paper)
        if row.shown:
            row.view.shown_with(row.shown)

    def check_change(self, row: Viewport, before: Viewport) -> None:
        moved = any(getattr(row, name) != getattr(before, name) for name in PINNED)
        if before.pinned and row.pinned and moved:
            raise SheetError("This viewport is pinned. Unpin it to change what it frames.")

    def created(self, row: Viewport, memo: Memo) -> None:
        keep_scale(row)
        self._follow(row)

    def updated(self, row: Viewport, before: Viewport, changed: set[str], memo: Memo) -> None:
        if changed & {"scale", "view"}:
            keep_scale(row)
        # What could not be made for it is asked for again with whatever is changed.
        if changed & LIT or not is_lit(row):
            self._follow(row, (before.shown, before.view_id))

    def _follow(self, row: Viewport, before: tuple[dict[str, Any], Any] = ({}, None)) -> None:
        """What follows from a viewport's having been written: its own drawing is ordered, and its light."""
        if not row.shown and (row.linework_id or row.drawn_from_id or row.wanted):
            Viewport.objects.filter(pk=row.pk).update(linework=None, drawn_from=None, wanted="")
            row.linework, row.drawn_from, row.wanted = None, None, ""
        elif row.shown and (row.shown, row.view_id) != before:
            order_own_drawing(row)
        order_light(row)


viewport_service = ViewportService()


def order_own_drawing(row: Viewport) -> None:
    """Have a viewport drawn that shows something else than its view does."""
    drawings.order(row, row.view, row.view.shown_with(row.shown))


def follow_view(view: View, *, only_ask: bool = False) -> None:
    """A view asks for another drawing, and so do those of its viewports that show something else of it."""
    rows = Viewport.objects.filter(view=view).select_related("view")
    for row, _ in readable(rows.exclude(shown={}), check_stored):
        if only_ask:
            drawings.ask_for(row, drawings.version_for(view), view.shown_with(row.shown))
        else:
            order_own_drawing(row)
    # What was lit until now, and is no more, lets go of its picture.
    for row, _ in readable(rows, check_stored):
        if row.wanted_picture or row.wanted_areas or row.appearance_as_core != LINES_ONLY:
            order_light(row)


def follow_axes(view: View, where: OnPaper | None) -> None:
    """A view is told in other axes: its viewports go on showing what they showed, where it shows it still."""
    if where is None:
        return
    for row in Viewport.objects.filter(view=view):
        u, v = where.point((row.centre_u, row.centre_v))
        Viewport.objects.filter(pk=row.pk).update(centre_u=u, centre_v=v, version=F("version") + 1)


def give_linework(linework: Linework, version: Any) -> None:
    """A drawing goes to the viewports that ask for it."""
    Viewport.objects.filter(wanted=linework.key).update(linework=linework, drawn_from=version)
    drawn = Viewport.objects.filter(Q(linework=linework) | Q(linework=None, view__linework=linework))
    for row, _ in readable(drawn.in_light(), check_stored):
        order_light(row)


def holds_linework(key: str, projects: QuerySet[Project]) -> bool:
    """Whether a viewport in these projects is drawn by a drawing."""
    return Viewport.objects.filter(linework=key, sheet__project__in=projects).exists()


def check_stored(row: Viewport) -> None:
    """Read all that is stored of a viewport and its view.

    Raises:
        Exception: of any kind, where something was damaged.
    """
    row.view.check_stored()
    as_core(row, 1)


def as_core(row: Viewport, number: int, words: SheetWords = ENGLISH) -> CoreViewport:
    """The core's viewport of a row, with its number on its sheet and the words of its title."""
    drawing = row.drawn.linework
    pens: PenChanges = parse(PenChanges, row.pens, "viewport's pens", SheetError)
    return CoreViewport(
        id=str(row.pk),
        linework=drawing.key if drawing else "",
        box=box_of(row),
        scale=row.scale,
        centre=(row.centre_u, row.centre_v),
        number=str(number),
        name=row.view.name,
        to_scale=row.view.as_core.to_scale,
        shape=row.shape,  # type: ignore[arg-type]
        corners=tuple((x, y) for x, y in row.corners),
        turn=row.turn,
        framed=row.framed,
        opaque=row.opaque,
        pen_table=str(row.pen_table_id or ""),
        pens=pens,
        appearance=row.appearance_as_core,
        picture=row.wanted_picture,
        shadow=areas_in(row),
        title=row.title_style,  # type: ignore[arg-type]
        title_offset=(row.title_offset[0], row.title_offset[1]),
        mark_offsets={view: tuple((x, y) for x, y in by) for view, by in row.mark_offsets.items()},
        room_offsets={room: (x, y) for room, (x, y) in row.room_offsets.items()},
        words=words,
    )


def box_of(row: Viewport) -> Box:
    return Box(row.x, row.y, row.width, row.height)


def taken_on(sheet: Sheet) -> list[Box]:
    """What is taken of a sheet by the viewports on it."""
    return [box_of(row) for row in sheet.viewports.all()]


def ladder_of(project: Project) -> tuple[Scale, ...]:
    """The ladder that scales are chosen from by themselves: in feet and inches where the last viewport is."""
    last = Viewport.objects.filter(sheet__project=project).order_by("sheet__position", "position").last()
    return FEET_LADDER if last and last.scale_in_feet else LADDER


def keep_scale(row: Viewport) -> None:
    """Keep a scale that stands on no ladder with the register, to be chosen again."""
    register, text = register_of(row.sheet.project), str(row.scale)
    on_ladder = row.scale in (*LADDER, *FEET_LADDER) or text in register.custom_scales
    if row.view.as_core.to_scale and not on_ladder:
        register.custom_scales = [*register.custom_scales, text]
        register.save(update_fields=["custom_scales"])


def _geometry_for(view: View, sheet: Sheet, given: dict[str, Any]) -> dict[str, Any]:
    """The geometry of a new viewport: as given, or as the core places the view about a point or in an empty
    space.

    Raises:
        SheetError: a part of the geometry is missing.
    """
    at = given.pop("at", None)
    there = [name for name in GEOMETRY if name in given]
    if len(there) == len(GEOMETRY) and "scale" in given:
        return {}
    if there:
        raise SheetError(
            "Give a viewport's whole place, size, centre and scale, or only the point to place it at."
        )
    return _geometry(
        place_view(
            tuple(view.linework.extents) if view.linework and view.linework.extents else None,
            sheet.blank,
            tuple(at) if at else None,
            given.get("scale"),
            taken_on(sheet),
            ladder_of(sheet.project),
        )
    )


def _geometry(placed: CoreViewport) -> dict[str, Any]:
    box = placed.box
    return {
        "x": box.x, "y": box.y, "width": box.width, "height": box.height,
        "centre_u": placed.centre[0], "centre_v": placed.centre[1], "scale": placed.scale,
    }  # fmt: skip


def arrange_views(
    sheet: Sheet, views: Sequence[View], projection: Projection
) -> tuple[list[Viewport], Sequence[str]]:
    """Lay views out on a sheet as a projected set, each in a new viewport. With them sentences about those
    that the projection has no place for.

    Raises:
        SheetError: one has not been drawn yet, or they do not fit.
    """
    drawn = []
    for view in views:
        if view.linework is None or not view.linework.extents:
            raise SheetError(f"“{view.name}” shows nothing yet. Wait for its drawing, or leave it out.")
        axes = view.linework.axes
        drawn.append(
            DrawnView(
                str(view.pk),
                view.name,
                tuple(view.linework.extents),
                axes["right"],
                axes["up"],
                axes["origin"],
                to_scale=view.as_core.to_scale,
            )
        )
    arranged = arrange(drawn, sheet.blank, projection, taken_on(sheet), ladder_of(sheet.project))
    with transaction.atomic():
        return [
            viewport_service.create({"sheet": sheet, "view": view, **_geometry(viewport)})
            for view, viewport in zip(views, arranged.viewports, strict=True)
        ], arranged.notes
