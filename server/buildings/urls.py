"""Where model versions are."""

from rest_framework.routers import SimpleRouter

from server.buildings.viewsets import ModelVersionViewSet, SizeQuestionViewSet

router = SimpleRouter()
router.register("model-versions", ModelVersionViewSet, "model-version")
router.register("size-questions", SizeQuestionViewSet, "size-question")
urlpatterns = router.urls
