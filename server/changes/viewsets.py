"""Changes to several rows at once."""

from __future__ import annotations

from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.changes.serializers import ChangedSerializer, ChangesSerializer
from server.changes.services import make_changes


class ChangesView(APIView):
    """Make changes, in their order."""

    @extend_schema(request=ChangesSerializer, responses=ChangedSerializer)
    def post(self, request: Request) -> Response:
        """Answers with each row as it is now, null for one that is gone. A conflict changes nothing at
        all."""
        given = ChangesSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        wanted = given.validated_data
        context = {"request": request, "view": self}
        rows = make_changes(request.user, wanted["steps"], wanted.get("change"), context)
        return Response({"rows": rows})
