"""The API of annotation."""

from __future__ import annotations

from django.db.models import QuerySet

from server.annotations.models import Annotation
from server.annotations.serializers import AnnotationSerializer
from server.annotations.services import annotation_service
from server.projects.rows import RowKind, row_viewset


def _rows() -> QuerySet[Annotation]:
    return Annotation.objects.select_related(
        "view__linework", "sheet", "viewport__view__linework", "viewport__linework"
    )


ANNOTATIONS = RowKind(AnnotationSerializer, annotation_service, _rows)

AnnotationViewSet = row_viewset(ANNOTATIONS, "Annotation in one's own projects.")
