"""Annotation that is made for a whole drawing: offered here, and kept by whoever asks for it."""

from __future__ import annotations

from collections.abc import Iterable

from django.db.models import Q

from drafting.annotation.anchors import Anchor
from drafting.annotation.dimensions import Dimension, StyleName
from drafting.annotation.inner_chains import inner_chain
from drafting.annotation.outer_chains import SIDES, Side, outer_chains
from drafting.annotation.own_levels import Beside, Levelled, own_levels
from drafting.annotation.reference_lines import GRID, reference_lines
from drafting.annotation.spot_levels import SpotLevel
from drafting.annotation.tags import Tag, TagWords, tag_lines, tags_for
from drafting.errors import SheetError
from drafting.geometry.polylines import Floats
from drafting.geometry.sampling import pieces_of, sampled
from drafting.linework.model import Linework as CoreLinework
from drafting.render.backends.extents import bounds_of
from drafting.render.drawing_title import LAYER as TITLES
from drafting.render.items import Drawing, Fill, Path, Text
from drafting.render.mark_items import LAYER as MARKS
from drafting.render.placed import PlacedDrawing
from drafting.render.template_items import LAYER as TITLE_BLOCK
from server.annotations.drawn import corners_of, drawn_linework, is_upright, lines_of
from server.annotations.known import Known, data_of
from server.annotations.models import Annotation
from server.buildings.models import newest_version
from server.sheets.composing import building_on_paper, composed
from server.sheets.models import Viewport
from server.sheets.whole_set import WholeSet
from server.views.models import Linework

#: How far apart points along lines lie that tags keep clear of, paper mm.
_STEP = 0.5
#: Layers that levels beside a drawing keep clear of.
_KEPT_CLEAR = (MARKS, TITLES, TITLE_BLOCK)


def outer_chains_of(viewport: Viewport, sides: Iterable[Side], figures: StyleName) -> list[Dimension]:
    """The chains outside the plan that is seen through a viewport, at their distances there.

    Raises:
        SheetError: it is no plan, or it has not been drawn yet, or nothing is cut in it.
    """
    drawing = _drawing_of(viewport)
    if viewport.view.as_core.kind != "plan":
        raise SheetError(f"“{viewport.view.name}” is no plan. Outer walls are dimensioned in plans.")
    grid_lines, _ = lines_of(newest_version(viewport.sheet.project))
    seen = reference_lines(grid_lines, (), drawing.axes)
    grid = [(name.removeprefix(GRID), *ends) for name, ends in seen.items()]
    linework, corners = drawn_linework(drawing)
    wanted = [side for side in SIDES if side in set(sides)]
    return outer_chains(linework, corners, wanted, float(viewport.scale.ratio), grid, figures)


def inner_chain_of(
    viewport: Viewport, start: tuple[float, float], end: tuple[float, float], figures: StyleName
) -> Dimension:
    """The chain along a line across what is seen through a viewport, in its u and v.

    Raises:
        SheetError: it has not been drawn yet, or the line crosses no walls.
    """
    linework, corners = drawn_linework(_drawing_of(viewport))
    return inner_chain(linework, corners, start, end, figures)


def levels_of(viewport: Viewport, wanted: Iterable[Levelled], side: Beside) -> list[SpotLevel]:
    """Spot levels beside what is seen through a viewport, beyond what stands there already.

    Raises:
        SheetError: heights are not seen in it, it has not been drawn yet, or nothing has a height of its own.
    """
    drawing = _drawing_of(viewport)
    if not viewport.view.as_core.true_lengths or not is_upright(drawing):
        raise SheetError(f"Heights are not seen in “{viewport.view.name}”. Choose an elevation or a section.")
    whole = WholeSet.of(viewport.sheet.project)
    made, display = composed(viewport.sheet, whole)
    seen = next(each for each in made.viewports if each.id == str(viewport.pk))
    linework, corners = drawn_linework(drawing)
    # Those of this drawing are set anew; those of its neighbours are kept clear of.
    rows = Annotation.objects.filter(Q(viewport=viewport) | Q(view=viewport.view))
    earlier = rows.filter(spec__kind="level", spec__series__startswith=f"{side} ")
    ours = {str(key) for key in earlier.values_list("pk", flat=True)}
    taken = [piece.box for piece in display.pieces if piece.piece not in ours]
    taken += [bounds_of(i) for i in display.items if isinstance(i, Text | Path) and i.layer in _KEPT_CLEAR]
    others = Viewport.objects.filter(sheet=viewport.sheet).exclude(pk=viewport.pk)
    places = {each.id: each for each in made.viewports}
    buildings = (building_on_paper(row, places[str(row.pk)]) for row in others)
    taken += [building for building in buildings if building is not None]
    taken += viewport.sheet.blank.free.outside
    zero = drawing.axes["origin"][2] if drawing.axes else 0.0
    return own_levels(
        linework,
        corners,
        wanted,
        side,
        seen,
        taken,
        {element.id: element.heights for element in data_of(viewport.sheet.project).elements},
        zero=zero,
        known=[height - zero for _, height in whole.storeys] if viewport.levels else (),
        feet=viewport.scale_in_feet,
    )


def tags_of(viewport: Viewport, classes: Iterable[str], like: Tag) -> list[Tag]:
    """Tags for the elements of some classes that are seen through a viewport, clear of each other, of the
    names of rooms and of what is annotated there.

    Args:
        like: what tags are to say.

    Raises:
        SheetError: it has not been drawn yet, or shows none of them.
    """
    drawing = _drawing_of(viewport)
    whole = WholeSet.of(viewport.sheet.project)
    known = Known.of(viewport.sheet.project, whole)
    made, display = composed(viewport.sheet, whole)
    seen = next(each for each in made.viewports if each.id == str(viewport.pk))
    taken = [piece.box for piece in display.pieces if piece.viewport == seen.id]
    own = (item for item in display.items if isinstance(item, Text | Fill) and item.viewport == seen.id)
    taken += [bounds_of(item) for item in own]
    wanted = set(classes)
    labels = {
        element.id: tag_lines(like, known.openings.get(element.id), element)
        for element in known.data.elements
        if element.element_class in wanted
    }
    lines = _points_along(
        next(i for i in display.items if isinstance(i, Drawing) and i.viewport == seen.id),
        drawn_linework(drawing)[0],
    )
    found = list(tags_for(labels, corners_of(drawing), seen, taken, lines, like))
    if not found:
        raise SheetError(f"“{viewport.view.name}” shows none of these within the viewport.")
    return found


def tag_like(shows: TagWords, source: str, feet: bool) -> Tag:
    """A tag that says what is wanted, and stands nowhere yet."""
    return Tag(Anchor((0.0, 0.0)), shows=shows, source=source or "Name", feet=feet)


def classes_seen(viewport: Viewport) -> list[str]:
    """The classes of which a viewport's drawing shows elements."""
    linework = drawn_linework(_drawing_of(viewport))[0]
    return sorted({name for name in linework.classes if name})


def _drawing_of(viewport: Viewport) -> Linework:
    drawing = viewport.drawn.linework
    if drawing is None:
        raise SheetError(f"“{viewport.view.name}” has not been drawn yet. Wait for its drawing.")
    return drawing


def _points_along(item: Drawing, linework: CoreLinework) -> Floats:
    """(n, 2) points along the lines of a drawing, paper mm."""
    groups = PlacedDrawing(item, linework).line_groups()
    return sampled(pieces_of([lines for _, _, lines in groups]), _STEP).points
