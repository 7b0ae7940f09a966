"""Pages for whoever runs the installation, and for what watches it."""

from __future__ import annotations

from django.contrib import admin
from django.contrib.admin.views.decorators import staff_member_required
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render
from prometheus_client import REGISTRY
from prometheus_client.exposition import CONTENT_TYPE_LATEST, generate_latest
from rest_framework.permissions import IsAdminUser
from rest_framework.request import Request
from rest_framework.views import APIView

from server.operations import state


def live(request: HttpRequest) -> JsonResponse:
    """Whether the web process answers at all."""
    return JsonResponse({"alive": True})


def ready(request: HttpRequest) -> JsonResponse:
    """Whether all parts work: 200 if so, else 503; which do not is told either way."""
    parts = state.parts()
    works = all(part.works for part in parts)
    told = {part.name: {"works": part.works, "words": part.words} for part in parts}
    return JsonResponse({"ready": works, **told}, status=200 if works else 503)


class MetricsView(APIView):
    """Figures for monitoring, for administrators and their tokens."""

    permission_classes = [IsAdminUser]
    schema = None

    def get(self, request: Request) -> HttpResponse:
        return HttpResponse(generate_latest(REGISTRY), content_type=CONTENT_TYPE_LATEST)


@staff_member_required
def overview(request: HttpRequest) -> HttpResponse:
    """What works, what is done just now, and what there is of everything."""
    about = {
        **admin.site.each_context(request),
        "title": "State of the installation",
        "parts": state.parts(),
        "figures": [(name.replace("_", " "), value) for name, value in state.figures().items()],
        **state.at_work(),
    }
    return render(request, "operations/overview.html", about)
