"""Where projects are."""

from rest_framework.routers import SimpleRouter

from server.projects.viewsets import ProjectViewSet

router = SimpleRouter()
router.register("projects", ProjectViewSet, "project")
urlpatterns = router.urls
