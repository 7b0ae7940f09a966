"""Where annotation is."""

from rest_framework.routers import SimpleRouter

from server.annotations.viewsets import (
    AnnotationStyleViewSet,
    AnnotationViewSet,
    LibrarySymbolViewSet,
    NoteOfListViewSet,
    TableFileViewSet,
)

router = SimpleRouter()
router.register("annotations", AnnotationViewSet, "annotation")
router.register("listed-notes", NoteOfListViewSet, "listed-note")
router.register("annotation-styles", AnnotationStyleViewSet, "annotation-style")
router.register("symbols", LibrarySymbolViewSet, "symbol")
router.register("table-files", TableFileViewSet, "table-file")
urlpatterns = router.urls
