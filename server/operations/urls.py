"""Where the installation tells of itself."""

from django.urls import path

from server.operations import views

urlpatterns = [
    path("health/live", views.live),
    path("health/ready", views.ready),
    path("metrics", views.MetricsView.as_view()),
    path("admin/state/", views.overview),
]
