"""The API of annotation."""

from __future__ import annotations

from django.db.models import QuerySet
from drf_spectacular.utils import extend_schema
from rest_framework.decorators import action
from rest_framework.request import Request
from rest_framework.response import Response

from server.annotations import services
from server.annotations.models import Annotation
from server.annotations.serializers import (
    AnnotationSerializer,
    OuterChainSerializer,
    OuterChainsSerializer,
)
from server.projects.rows import RowKind, RowViewSet, listed_by_project


def _rows() -> QuerySet[Annotation]:
    return Annotation.objects.select_related(
        "view__linework", "sheet", "viewport__view__linework", "viewport__linework"
    )


ANNOTATIONS = RowKind(AnnotationSerializer, services.annotation_service, _rows)


@listed_by_project
class AnnotationViewSet(RowViewSet):
    """Annotation in one's own projects."""

    kind = ANNOTATIONS
    rows = staticmethod(_rows)
    queryset = Annotation.objects.none()

    @extend_schema(request=OuterChainsSerializer, responses=OuterChainSerializer(many=True))
    @action(detail=False, methods=["post"], url_path="outer-chains")
    def outer_chains(self, request: Request) -> Response:
        """The chains outside a plan; whoever asks keeps those that are wanted."""
        given = OuterChainsSerializer(data=request.data, context=self.get_serializer_context())
        given.is_valid(raise_exception=True)
        made = services.outer_chains_of(**given.validated_data)
        return Response(OuterChainSerializer(made, many=True).data)
