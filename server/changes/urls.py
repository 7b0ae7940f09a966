"""Where batches of changes are sent."""

from django.urls import path

from server.changes.viewsets import ChangesView

urlpatterns = [path("changes/", ChangesView.as_view())]
