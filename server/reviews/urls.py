"""Where reviews are."""

from django.urls import path
from rest_framework.routers import SimpleRouter

from server.reviews.link_views import (
    AnsweringView,
    CommentPicturesView,
    CommentPictureView,
    ReviewedPdfView,
    ReviewedView,
    SaidView,
    TileView,
)
from server.reviews.viewsets import (
    CommentBcfView,
    CommentFileViewSet,
    CommentPictureViewSet,
    CommentSummaryView,
    CommentViewSet,
    ReviewLinkViewSet,
    ReviewViewSet,
    ScanFileViewSet,
    ScanViewSet,
)

router = SimpleRouter()
router.register("reviews", ReviewViewSet, "review")
router.register("review-links", ReviewLinkViewSet, "review-link")
router.register("comments", CommentViewSet, "comment")
router.register("comment-files", CommentFileViewSet, "comment-file")
router.register("scans", ScanViewSet, "scan")
router.register("scan-files", ScanFileViewSet, "scan-file")
router.register("comment-pictures", CommentPictureViewSet, "comment-picture")
_LINK = "reviewed/<str:secret>/"
urlpatterns = [
    *router.urls,
    path("comment-bcf/", CommentBcfView.as_view()),
    path("comment-summary/", CommentSummaryView.as_view()),
    path(_LINK, ReviewedView.as_view()),
    path(f"{_LINK}comments/", SaidView.as_view()),
    path(f"{_LINK}comments/<uuid:comment>/answers/", AnsweringView.as_view()),
    path(f"{_LINK}comments/<uuid:comment>/pictures/", CommentPicturesView.as_view()),
    path(f"{_LINK}pictures/<uuid:picture>/", CommentPictureView.as_view()),
    path(f"{_LINK}tiles/<uuid:sheet>/<int:level>/<int:row>/<int:column>/", TileView.as_view()),
    path(f"{_LINK}pdf/", ReviewedPdfView.as_view()),
]
