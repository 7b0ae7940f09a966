"""The API of touch-ups."""

from django.db.models import QuerySet

from server.projects.rows import RowKind, row_viewset
from server.touchups.models import TouchUp
from server.touchups.serializers import TouchUpSerializer
from server.touchups.services import touch_up_service


def _rows() -> QuerySet[TouchUp]:
    return TouchUp.objects.select_related("view__linework", "viewport__view__linework", "viewport__linework")


TOUCH_UPS = RowKind(TouchUpSerializer, touch_up_service, _rows)
TouchUpViewSet = row_viewset(TOUCH_UPS, "Touch-ups of the views of one's own projects.")
