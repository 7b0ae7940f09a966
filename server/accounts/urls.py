"""Where signing in is, and one's account."""

from django.urls import path
from rest_framework.routers import SimpleRouter

from server.accounts.viewsets import (
    AccessTokenViewSet,
    PasswordView,
    PreferencesView,
    SessionView,
    SignedInViewSet,
)

router = SimpleRouter()
router.register("account/signed-in", SignedInViewSet)
router.register("account/tokens", AccessTokenViewSet)
urlpatterns = [
    path("session/", SessionView.as_view()),
    path("account/password/", PasswordView.as_view()),
    path("account/preferences/", PreferencesView.as_view()),
    *router.urls,
]
