"""Where batches of changes are sent, and what was done is told."""

from django.urls import path

from server.changes.viewsets import BackView, ChangesView, HistoryView, RowsView, UnreadableView

urlpatterns = [
    path("rows/", RowsView.as_view()),
    path("unreadable/", UnreadableView.as_view()),
    path("changes/", ChangesView.as_view()),
    path("history/", HistoryView.as_view()),
    path("history/<int:entry>/back/", BackView.as_view()),
]
