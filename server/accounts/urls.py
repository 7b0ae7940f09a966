"""Where signing in is."""

from django.urls import path

from server.accounts.viewsets import SessionView

urlpatterns = [path("session/", SessionView.as_view())]
