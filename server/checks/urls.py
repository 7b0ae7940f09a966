"""Where checking is."""

from django.urls import path
from rest_framework.routers import SimpleRouter

from server.checks.viewsets import CheckRulesViewSet, ChecksView, RulesView, WaiverViewSet

router = SimpleRouter()
router.register("waivers", WaiverViewSet, "waiver")
router.register("check-rules", CheckRulesViewSet, "check-rules")
urlpatterns = [
    *router.urls,
    path("checks/", ChecksView.as_view()),
    path("rules/", RulesView.as_view()),
]
