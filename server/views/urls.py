"""Where views and their linework are."""

from django.urls import path
from rest_framework.routers import SimpleRouter

from server.views.viewsets import (
    LineworkView,
    NamedLineSettingsViewSet,
    ReceivedFileViewSet,
    SubsetViewSet,
    ViewViewSet,
)

router = SimpleRouter()
router.register("views", ViewViewSet, "view")
router.register("line-settings", NamedLineSettingsViewSet, "line-settings")
router.register("subsets", SubsetViewSet, "subset")
router.register("received-files", ReceivedFileViewSet, "received-file")
urlpatterns = [*router.urls, path("linework/<str:key>/", LineworkView.as_view(), name="linework")]
