"""Where issuing is."""

from django.urls import path
from rest_framework.routers import SimpleRouter

from server.issues.viewsets import (
    ComparisonViewSet,
    DayStateViewSet,
    IssueChoicesView,
    IssuedFileViewSet,
    IssuedRecipientViewSet,
    IssueOrderViewSet,
    IssueViewSet,
    RecipientViewSet,
    RegisterOfIssuesView,
    RemakeViewSet,
    RevisionOffersView,
)

router = SimpleRouter()
router.register("recipients", RecipientViewSet, "recipient")
router.register("issues", IssueViewSet, "issue")
router.register("issue-orders", IssueOrderViewSet, "issue-order")
router.register("issued-recipients", IssuedRecipientViewSet, "issued-recipient")
router.register("issued-files", IssuedFileViewSet, "issued-file")
router.register("remakes", RemakeViewSet, "remake")
router.register("day-states", DayStateViewSet, "day-state")
router.register("comparisons", ComparisonViewSet, "comparison")
urlpatterns = [
    *router.urls,
    path("revision-offers/", RevisionOffersView.as_view()),
    path("issue-choices/", IssueChoicesView.as_view()),
    path("issue-register/", RegisterOfIssuesView.as_view()),
]
