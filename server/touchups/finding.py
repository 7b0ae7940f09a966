"""What touch-ups choose of the drawings that are seen through viewports now."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence

from django.db.models import F, Q

from drafting.sheets.viewport import FoundTouchUp
from drafting.touchup.drawing import TouchedDrawing
from server.annotations.drawn import corners_of, drawn_linework, lines_of
from server.buildings.models import newest_version
from server.sheets.composing import WholeSet
from server.sheets.models import Sheet, Viewport
from server.touchups.models import TouchUp
from server.views.models import Drawn, View


def touch_ups_in(
    sheet: Sheet, viewports: Sequence[Viewport], whole: WholeSet
) -> Mapping[str, tuple[FoundTouchUp, ...]]:
    """The touch-ups of the viewports on a sheet, by the ids of these, with what they find there."""
    views = [row.view_id for row in viewports]
    rows = list(
        TouchUp.objects.filter(Q(viewport=None) | Q(viewport__view=F("view")), view__in=views).order_by(
            "position", "id"
        )
    )
    if not rows:
        return {}
    found: dict[str, list[FoundTouchUp]] = defaultdict(list)
    for viewport in viewports:
        own = [
            row for row in rows if row.view_id == viewport.view_id and row.viewport_id in (None, viewport.pk)
        ]
        drawing = touched_drawing(viewport.drawn, viewport.view, whole.grid, whole.storeys) if own else None
        if drawing is not None:
            found[str(viewport.pk)] = [FoundTouchUp(str(row.pk), row.as_core.redrawn(drawing)) for row in own]
    return {viewport: tuple(each) for viewport, each in found.items()}


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
