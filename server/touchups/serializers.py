"""Touch-ups as they are received and sent."""

from __future__ import annotations

from rest_framework import serializers

from drafting.errors import ViewError
from drafting.touchup.touch_up import TouchUp as CoreTouchUp
from server.annotations.serializers import OwnViewportField
from server.common.serializers import RowSerializer
from server.common.shapes import ShapeField
from server.projects.serializers import OwnProjectField
from server.sheets.viewport_serializers import OwnViewField
from server.touchups.models import TouchUp


class TouchUpSerializer(RowSerializer):
    """A touch-up of a view: in all viewports of that, or in one."""

    project = OwnProjectField()
    view = OwnViewField()
    viewport = OwnViewportField(required=False, allow_null=True)
    position = serializers.IntegerField(min_value=0, max_value=1_000_000, required=False)
    spec = ShapeField(CoreTouchUp, "touch-up", ViewError, "TouchUpSpec")

    class Meta:
        model = TouchUp
        fields = ["id", "project", "view", "viewport", "position", "spec", "version"]
