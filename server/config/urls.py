"""Where everything is: the API under /api/, and one page for all stations."""

from django.contrib import admin
from django.urls import include, path, re_path
from django.views.generic import RedirectView
from drf_spectacular.views import SpectacularAPIView, SpectacularSwaggerSplitView

from server.config.page import page
from server.issues import links

APPS = (
    "accounts", "projects", "jobs", "buildings", "views", "styles", "sheets", "annotations", "touchups",
    "plots", "checks", "issues", "reviews", "changes", "events",
)  # fmt: skip

urlpatterns = [
    # Administrators sign in where everybody does, where guessing passwords is slowed down.
    path("admin/login/", RedirectView.as_view(url="/")),
    path("", include("server.operations.urls")),
    path("admin/", admin.site.urls),
    path("api/schema/", SpectacularAPIView.as_view(), name="schema"),
    path("api/docs/", SpectacularSwaggerSplitView.as_view(url_name="schema")),
    *(path("api/", include(f"server.{app}.urls")) for app in APPS),
    path("delivered/<str:secret>/", links.page),
    path("delivered/<str:secret>/<str:which>/", links.file),
    re_path(r"^(?:projects/.*|(?:invited|review)/[^/]*/?)?$", page),
]
