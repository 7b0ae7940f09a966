"""Where model versions are."""

from rest_framework.routers import SimpleRouter

from server.buildings.viewsets import ModelVersionViewSet

router = SimpleRouter()
router.register("model-versions", ModelVersionViewSet, "model-version")
urlpatterns = router.urls
