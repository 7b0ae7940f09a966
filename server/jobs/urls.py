"""Where jobs are."""

from rest_framework.routers import SimpleRouter

from server.jobs.viewsets import JobViewSet

router = SimpleRouter()
router.register("jobs", JobViewSet, "job")
urlpatterns = router.urls
