"""Addresses of touch-ups."""

from rest_framework.routers import SimpleRouter

from server.touchups.viewsets import TouchUpViewSet

router = SimpleRouter()
router.register("touch-ups", TouchUpViewSet, "touch-up")
urlpatterns = router.urls
