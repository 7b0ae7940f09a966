"""What touch-ups choose of the drawings that are seen through viewports now."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import lru_cache

from django.db.models import F, Q

from drafting.linework.model import Linework as CoreLinework
from drafting.sheets.viewport import FoundTouchUp, TouchedUp
from drafting.styles.redrawn import Redrawn
from drafting.touchup.drawing import TouchedDrawing
from drafting.touchup.simplification import Simplification
from server.annotations.drawn import MAX_KEPT, corners_of, drawn_linework, lines_of
from server.buildings.models import newest_version
from server.sheets.models import Sheet, Viewport
from server.sheets.whole_set import WholeSet
from server.touchups.models import TouchUp
from server.views.models import Drawn, View


def touched_up(sheet: Sheet, viewports: Sequence[Viewport], whole: WholeSet) -> Mapping[str, TouchedUp]:
    """What is drawn otherwise in the viewports on a sheet, by the ids of these."""
    views = [row.view_id for row in viewports]
    in_this = Q(viewport=None) | Q(viewport__view=F("view"))
    there = TouchUp.objects.filter(in_this, view__in=views).order_by("position", "id")
    rows = list(whole.readable(sheet, there, lambda row: row.as_core))
    found = {}
    for viewport in viewports:
        of_view = [(row, touch_up) for row, touch_up in rows if row.view_id == viewport.view_id]
        own = [each for each in of_view if each[0].viewport_id in (None, viewport.pk)]
        drawing = touched_drawing(viewport.drawn, viewport.view, whole.grid, whole.storeys) if own else None
        made = tuple(FoundTouchUp(str(row.pk), each.redrawn(drawing)) for row, each in own if drawing)
        rule = viewport.view.simplified_by
        if rule and viewport.drawn.linework and rule.holds_at(float(viewport.scale.ratio)):
            linework, _ = drawn_linework(viewport.drawn.linework)
            simplified = _simplified(linework, rule, float(viewport.scale.ratio))
            found[str(viewport.pk)] = TouchedUp(made, simplified, rule.fills)
        elif made:
            found[str(viewport.pk)] = TouchedUp(made)
    return found


@lru_cache(maxsize=MAX_KEPT)
def _simplified(linework: CoreLinework, rule: Simplification, ratio: float) -> Redrawn:
    """What a rule leaves out of a drawing; of one that is kept ready, worked out once."""
    return rule.redrawn(linework, ratio)


def touched_drawing(
    drawn: Drawn,
    view: View,
    grid: Sequence[tuple[str, tuple[float, float], tuple[float, float]]] | None = None,
    storeys: Sequence[tuple[str, float]] = (),
) -> TouchedDrawing | None:
    """The drawing of a view as touch-ups look at it; None where there is none yet."""
    if drawn.linework is None:
        return None
    if grid is None:
        grid, storeys = lines_of(newest_version(view.project))
    lines = ((), ()) if view.is_received else (grid, storeys)
    return TouchedDrawing(
        drawn_linework(drawn.linework)[0], corners_of(drawn.linework, *lines), view.as_core.kind
    )
