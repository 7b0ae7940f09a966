"""Making and changing annotation, and where it stands on sheets."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Any

from django.db.models import Q
from rest_framework import serializers
from shapely import Point as ShapelyPoint
from shapely import Polygon

from drafting.annotation.anchors import Anchor
from drafting.annotation.dimensions import Dimension, StyleName
from drafting.annotation.outer_chains import SIDES, Side, outer_chains
from drafting.annotation.pieces import PlacedPiece, attached, check_piece, dump_piece, parse_piece, stand
from drafting.annotation.schedules import Listed, Schedule, Table, schedule_table
from drafting.annotation.tags import Tag, TagWords, tag_lines, tags_for
from drafting.building.openings import Opening
from drafting.errors import SheetError
from drafting.geometry.polylines import Floats
from drafting.geometry.sampling import pieces_of, sampled
from drafting.linework.model import Linework as CoreLinework
from drafting.render.backends.extents import bounds_of
from drafting.render.items import Drawing, Fill, Text
from drafting.render.placed import PlacedDrawing
from drafting.sheets import sheet as core
from drafting.sheets.viewport import Viewport as CoreViewport
from server.annotations.drawn import corners_of, drawn_linework, grid_seen, is_upright
from server.annotations.models import Annotation
from server.buildings.models import ModelVersion, newest_version
from server.common.rows import Memo, RowService
from server.projects.models import Project
from server.sheets.composing import WholeSet, composed
from server.sheets.models import Sheet, Viewport
from server.sheets.services import next_position
from server.views.models import Drawn

#: A sheet, or a view, holds no more pieces than this: more nobody could read.
MAX_PIECES = 3_000
#: What lies this near to a viewport's outline is still seen in it, paper mm.
_ON_EDGE = 0.5
#: How far apart points along lines lie that tags keep clear of, paper mm.
_STEP = 0.5


class AnnotationService(RowService[Annotation]):
    model = Annotation

    def prepare(self, values: dict[str, Any], memo: Memo) -> None:
        if "position" not in values:
            values["position"] = next_position(Annotation.objects.filter(project=values["project"]))

    def check(self, row: Annotation, changed: set[str], memo: Memo) -> None:
        if (row.view_id is None) == (row.sheet_id is None):
            raise SheetError("A piece of annotation stands in a view, or on a sheet. Say in which.")
        if row.viewport is not None and row.viewport.sheet_id != row.sheet_id:
            raise serializers.ValidationError({"viewport": "There is no such viewport on this sheet."})
        self._check_number(row)
        if row.view_id is not None and row.spec.get("kind") == "cloud":
            raise SheetError("A cloud stands on the sheet, where the change is, and not in a view.")
        if not {"spec", "view", "sheet", "viewport"} & changed:
            return
        drawn = drawn_of(row)
        drawing = drawn.linework if drawn is not None else None
        view = row.view or (row.viewport.view if row.viewport is not None else None)
        piece = parse_piece(row.spec)
        if isinstance(piece, Tag) and piece.at.element not in _openings_of(row.project):
            raise SheetError("A tag is the label of a door or a window. Click one.")
        check_piece(piece, view.as_core if view else None, upright=is_upright(drawing))
        row.spec = dump_piece(attached(piece, corners_of(drawing)))

    def _check_number(self, row: Annotation) -> None:
        if not row._state.adding:
            return
        beside = Annotation.objects.filter(view=row.view_id, sheet=row.sheet_id)
        if beside.count() >= MAX_PIECES:
            where = f"the view “{row.view}”" if row.view else f"sheet {row.sheet.number if row.sheet else ''}"
            raise SheetError(f"There are {MAX_PIECES} pieces of annotation in {where}. Delete some first.")


annotation_service = AnnotationService()


def outer_chains_of(viewport: Viewport, sides: Iterable[Side], figures: StyleName) -> list[Dimension]:
    """The chains outside the plan that is seen through a viewport, at their distances there.

    Raises:
        SheetError: it is no plan, or it has not been drawn yet, or nothing is cut in it.
    """
    drawing = viewport.drawn.linework
    if viewport.view.as_core.kind != "plan":
        raise SheetError(f"“{viewport.view.name}” is no plan. Outer walls are dimensioned in plans.")
    if drawing is None:
        raise SheetError(f"“{viewport.view.name}” has not been drawn yet. Wait for its drawing.")
    newest = newest_version(viewport.sheet.project)
    grid = grid_seen(newest.facts.get("grid", []) if newest else [], drawing)
    linework, corners = drawn_linework(drawing)
    wanted = [side for side in SIDES if side in set(sides)]
    return outer_chains(linework, corners, wanted, float(viewport.scale.ratio), grid, figures)


def tags_of(viewport: Viewport, of: Iterable[Listed], shows: TagWords) -> list[Tag]:
    """Tags for the doors or windows that are seen through a viewport, clear of each other, of the names of
    rooms and of what is annotated there.

    Raises:
        SheetError: it has not been drawn yet, or shows none of them.
    """
    drawing = viewport.drawn.linework
    if drawing is None:
        raise SheetError(f"“{viewport.view.name}” has not been drawn yet. Wait for its drawing.")
    whole = WholeSet.of(viewport.sheet.project)
    made, display = composed(viewport.sheet, whole)
    seen = next(each for each in made.viewports if each.id == str(viewport.pk))
    taken = [piece.box for piece in display.pieces if piece.viewport == seen.id]
    own = (item for item in display.items if isinstance(item, Text | Fill) and item.viewport == seen.id)
    taken += [bounds_of(item) for item in own]
    wanted = [o for o in whole.openings if ("doors" if o.is_door else "windows") in set(of)]
    like = Tag(Anchor((0.0, 0.0)), shows=shows, feet=viewport.scale_in_feet)
    lines = _points_along(
        next(i for i in display.items if isinstance(i, Drawing) and i.viewport == seen.id),
        drawn_linework(drawing)[0],
    )
    found = list(tags_for(wanted, corners_of(drawing), seen, taken, lines, like))
    if not found:
        raise SheetError(f"“{viewport.view.name}” shows no {' and no '.join(sorted(of))}.")
    return found


def _points_along(item: Drawing, linework: CoreLinework) -> Floats:
    """(n, 2) points along the lines of a drawing, paper mm."""
    groups = PlacedDrawing(item, linework).line_groups()
    return sampled(pieces_of([lines for _, _, lines in groups]), _STEP).points


def table_of(schedule: Schedule, whole: WholeSet) -> Table:
    """What a schedule lists of the newest version of a project's building."""
    return schedule_table(schedule, whole.rooms, whole.openings, whole.storeys)


def drawn_of(row: Annotation) -> Drawn | None:
    """What has the drawing that a piece is attached to; None for one on the bare sheet."""
    return row.view or (row.viewport.drawn if row.viewport is not None else None)


def pieces_on(
    sheet: Sheet, viewport_rows: Sequence[Viewport], made: core.Sheet, whole: WholeSet
) -> Iterator[PlacedPiece]:
    """The pieces that are seen on a sheet: those that stand on it, and those of the views that are placed
    there."""
    viewports = {str(row.pk): row for row in viewport_rows}
    views = [row.view_id for row in viewports.values() if row.annotation]
    pieces = Annotation.objects.filter(Q(sheet=sheet) | Q(view__in=views))
    rows = [row for row in pieces if _is_current(row, sheet)]
    if not rows:
        return
    openings = {opening.id: opening for opening in whole.openings}
    for viewport in made.viewports:
        row = viewports[viewport.id]
        for piece in rows:
            of_view = row.annotation and piece.view_id == row.view_id
            if of_view or piece.viewport_id == row.pk:
                placed = _labelled(_placed(piece, viewport, row), openings)
                if not of_view or _is_seen(placed, viewport):
                    yield placed
    for piece in rows:
        if piece.sheet_id is not None and piece.viewport_id is None:
            placed = _placed(piece)
            if isinstance(placed.piece, Schedule):
                placed = replace(placed, table=table_of(placed.piece, whole))
            yield placed


def _is_current(piece: Annotation, sheet: Sheet) -> bool:
    """Whether a piece is shown: a cloud is gone once its sheet has another revision, unless it is kept."""
    spec = piece.spec
    return spec["kind"] != "cloud" or spec["kept"] or spec["revision"] in ("", sheet.revision)


def _placed(
    piece: Annotation, viewport: CoreViewport | None = None, row: Viewport | None = None
) -> PlacedPiece:
    drawing = row.drawn.linework if row is not None else None
    spec = piece.as_core
    zero = drawing.axes["origin"][2] if drawing is not None and drawing.axes else 0.0
    return PlacedPiece(str(piece.pk), spec, stand(spec, corners_of(drawing)), viewport, zero)


def _openings_of(project: Project) -> set[str]:
    """The ids of the doors and windows of a project's building, in any of its versions."""
    facts = ModelVersion.objects.filter(project=project).values_list("facts", flat=True)
    return {opening["id"] for each in facts for opening in each.get("openings", ())}


def _labelled(placed: PlacedPiece, openings: Mapping[str, Opening]) -> PlacedPiece:
    """A piece with what a tag says of its door or window."""
    tag = placed.piece
    if not isinstance(tag, Tag):
        return placed
    return replace(placed, label=tag_lines(tag, openings.get(tag.at.element)))


def _is_seen(placed: PlacedPiece, viewport: CoreViewport) -> bool:
    """Whether some of what a piece is attached to lies within the outline of a viewport."""
    outline = Polygon(viewport.outline).buffer(_ON_EDGE)
    return any(outline.covers(ShapelyPoint(point)) for point in placed.points)
