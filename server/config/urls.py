"""Where everything is: the API under /api/, and one page for all stations."""

from django.urls import include, path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.generic import TemplateView
from drf_spectacular.views import SpectacularAPIView
from rest_framework.routers import DefaultRouter

from server.accounts.api import SessionView
from server.buildings.api import ModelVersionViewSet
from server.changes.api import ChangesView
from server.jobs.api import JobViewSet
from server.pens.api import PenStockView, PenTableViewSet
from server.plots.api import (
    DevicesView,
    DeviceView,
    PlotDoubtsView,
    PlotSettingsViewSet,
    PlotStockView,
    PlotsView,
    PrintViewSet,
    SheetListViewSet,
)
from server.projects.api import ProjectViewSet
from server.sheets.api import SheetViewSet
from server.sheets.viewport_api import LadderView, ViewportViewSet
from server.templates.api import PictureViewSet, StockView, TemplateViewSet
from server.views.api import LineworkView, NamedTreatmentViewSet, SubsetViewSet, ViewViewSet

router = DefaultRouter()
router.include_root_view = False
router.register("projects", ProjectViewSet, "project")
router.register("model-versions", ModelVersionViewSet, "model-version")
router.register("views", ViewViewSet, "view")
router.register("treatments", NamedTreatmentViewSet, "treatment")
router.register("subsets", SubsetViewSet, "subset")
router.register("sheets", SheetViewSet, "sheet")
router.register("viewports", ViewportViewSet, "viewport")
router.register("templates", TemplateViewSet, "template")
router.register("pictures", PictureViewSet, "picture")
router.register("pen-tables", PenTableViewSet, "pen-table")
router.register("plot-settings", PlotSettingsViewSet, "plot-settings")
router.register("sheet-lists", SheetListViewSet, "sheet-list")
router.register("prints", PrintViewSet, "print")
router.register("jobs", JobViewSet, "job")

urlpatterns = [
    path("api/session/", SessionView.as_view()),
    path("api/schema/", SpectacularAPIView.as_view()),
    path("api/linework/<str:key>/", LineworkView.as_view(), name="linework"),
    path("api/ladder/", LadderView.as_view()),
    path("api/stock/", StockView.as_view()),
    path("api/pen-stock/", PenStockView.as_view()),
    path("api/plot-stock/", PlotStockView.as_view()),
    path("api/plots/", PlotsView.as_view()),
    path("api/plots/doubts/", PlotDoubtsView.as_view()),
    path("api/devices/", DevicesView.as_view()),
    path("api/devices/<str:key>/", DeviceView.as_view()),
    path("api/changes/", ChangesView.as_view()),
    path("api/", include(router.urls)),
    re_path(r"^(?!api/|static/).*$", ensure_csrf_cookie(TemplateView.as_view(template_name="index.html"))),
]
