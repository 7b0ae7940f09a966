"""Where projects are."""

from django.urls import path
from rest_framework.routers import SimpleRouter

from server.projects.viewsets import InvitationViewSet, InvitedView, ProjectViewSet

router = SimpleRouter()
router.register("projects", ProjectViewSet, "project")
router.register("invitations", InvitationViewSet, "invitation")
urlpatterns = [*router.urls, path("invited/<str:secret>/", InvitedView.as_view())]
