"""Where pen tables and plot settings are."""

from django.urls import path
from rest_framework.routers import SimpleRouter

from server.styles.viewsets import PenPartsView, PenTableViewSet, PlotSettingsViewSet

router = SimpleRouter()
router.register("pen-tables", PenTableViewSet, "pen-table")
router.register("plot-settings", PlotSettingsViewSet, "plot-settings")
urlpatterns = [*router.urls, path("pen-parts/", PenPartsView.as_view())]
