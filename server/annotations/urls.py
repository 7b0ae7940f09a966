"""Where annotation is."""

from rest_framework.routers import SimpleRouter

from server.annotations.viewsets import AnnotationViewSet

router = SimpleRouter()
router.register("annotations", AnnotationViewSet, "annotation")
urlpatterns = router.urls
