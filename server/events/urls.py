"""Where what happens is told."""

from django.urls import path

from server.events.viewsets import EventsView, PlaceView

urlpatterns = [
    path("events/", EventsView.as_view()),
    path("places/", PlaceView.as_view()),
]
