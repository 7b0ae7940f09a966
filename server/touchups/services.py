"""Making and changing touch-ups."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from drafting.errors import ViewError
from drafting.touchup.touch_up import dump_touch_up
from server.common.rows import Memo, RowService
from server.sheets.services import next_position
from server.touchups.finding import touched_drawing
from server.touchups.models import TouchUp

#: A view has no more than these: more nobody could look through.
MAX_TOUCH_UPS = 1_000


class TouchUpService(RowService[TouchUp]):
    model = TouchUp

    def prepare(self, values: dict[str, Any], memo: Memo) -> None:
        if "position" not in values:
            values["position"] = next_position(TouchUp.objects.filter(project=values["project"]))

    def check(self, row: TouchUp, changed: set[str], memo: Memo) -> None:
        if row.viewport is not None and row.viewport.view_id != row.view_id:
            raise serializers.ValidationError({"viewport": "This viewport shows another view."})
        if row._state.adding and TouchUp.objects.filter(view=row.view_id).count() >= MAX_TOUCH_UPS:
            raise ViewError(f"The view “{row.view}” has {MAX_TOUCH_UPS} touch-ups. Delete some first.")
        if "spec" not in changed:
            return
        drawing = touched_drawing(row.viewport.drawn if row.viewport else row.view, row.view)
        if drawing is None:
            raise ViewError(f"“{row.view}” is not drawn yet. Touch it up when it is.")
        touch_up = row.as_core.attached(drawing)
        # One that comes back by undo may choose what is no longer there, and says so.
        if not row.as_core.view_kind and touch_up.redrawn(drawing) is None:
            raise ViewError(f"Nothing of “{row.view}” is chosen by this. Choose a line that is there.")
        row.spec = dump_touch_up(touch_up)


touch_up_service = TouchUpService()
