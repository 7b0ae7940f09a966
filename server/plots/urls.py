"""Where plotting is."""

from django.urls import path
from rest_framework.routers import SimpleRouter

from server.plots.viewsets import (
    DeviceKindsView,
    DevicesView,
    DeviceView,
    PlotViewSet,
    PrintViewSet,
    SheetListViewSet,
)

router = SimpleRouter()
router.register("plots", PlotViewSet, "plot")
router.register("sheet-lists", SheetListViewSet, "sheet-list")
router.register("prints", PrintViewSet, "print")
urlpatterns = [
    *router.urls,
    path("device-kinds/", DeviceKindsView.as_view()),
    path("devices/", DevicesView.as_view()),
    path("devices/<str:key>/", DeviceView.as_view()),
]
