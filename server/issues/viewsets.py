"""The API of issuing."""

from __future__ import annotations

from django.db.models import QuerySet
from django.http import FileResponse, HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import mixins, status, viewsets
from rest_framework.decorators import action
from rest_framework.exceptions import NotFound
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from drafting.errors import SheetError
from drafting.plotting.files import MEDIA_TYPES, file_name
from drafting.schema import dump
from drafting.sheets.revision_schemes import PURPOSES, SCHEMES
from server.common.responses import made_file, stored_file
from server.common.serializers import given_by
from server.issues import comparisons, issuing, records, sending, services
from server.issues.models import (
    KEPT,
    Compared,
    DayState,
    Issue,
    IssuedFile,
    IssuedRecipient,
    IssueOrder,
    Recipient,
    Remake,
)
from server.issues.serializers import (
    ComparisonRequestSerializer,
    ComparisonSerializer,
    DayStateSerializer,
    IssueChoicesSerializer,
    IssueOrderSerializer,
    IssueRequestSerializer,
    IssueSerializer,
    RecipientSerializer,
    RemakeSerializer,
    RevisionOfferSerializer,
    RevisionRequestSerializer,
)
from server.jobs.apart import run_apart
from server.projects.rows import ProjectRows, RowKind, listed_by_project, row_viewset
from server.projects.serializers import project_asked_for

RECIPIENTS = RowKind(RecipientSerializer, services.recipient_service, Recipient.objects.all)

RecipientViewSet = row_viewset(RECIPIENTS, "Whom one's own projects send sheets to.")


def _issues() -> QuerySet[Issue]:
    return Issue.objects.prefetch_related("sheets", "recipients__files", "recipients__sent")


@listed_by_project
class IssueViewSet(
    ProjectRows, mixins.ListModelMixin, mixins.RetrieveModelMixin, viewsets.GenericViewSet[Issue]
):
    """What left the office from one's own projects, the oldest first."""

    serializer_class = IssueSerializer
    queryset = Issue.objects.none()
    rows = staticmethod(_issues)

    @extend_schema(request=IssueRequestSerializer, responses={202: IssueOrderSerializer})
    def create(self, request: Request) -> Response:
        """Issue sheets, in the background: all of it is made, or nothing."""
        wanted = given_by(IssueRequestSerializer, request)
        named = {key: wanted[key] for key in ("name", "purpose", "date", "reason")}
        order = issuing.order_issue(
            wanted["project"], request.user, named, wanted["sheets"], wanted["recipients"]
        )
        order.refresh_from_db()
        return Response(IssueOrderSerializer(order).data, status=status.HTTP_202_ACCEPTED)

    @extend_schema(exclude=True)
    def destroy(self, request: Request, pk: str) -> Response:
        self.get_object()
        raise SheetError(KEPT)

    @extend_schema(exclude=True)
    def partial_update(self, request: Request, pk: str) -> Response:
        self.get_object()
        raise SheetError(KEPT)


class IssueOrderViewSet(ProjectRows, mixins.RetrieveModelMixin, viewsets.GenericViewSet[IssueOrder]):
    """Issues that are being made."""

    serializer_class = IssueOrderSerializer
    queryset = IssueOrder.objects.none()
    to_project = "job__project"

    @staticmethod
    def rows() -> QuerySet[IssueOrder]:
        return IssueOrder.objects.select_related("job")


class IssuedRecipientViewSet(ProjectRows, viewsets.GenericViewSet[IssuedRecipient]):
    """What a recipient was sent."""

    queryset = IssuedRecipient.objects.none()
    to_project = "issue__project"

    @staticmethod
    def rows() -> QuerySet[IssuedRecipient]:
        return IssuedRecipient.objects.select_related("issue__project")

    @extend_schema(responses={(200, "application/pdf"): OpenApiTypes.BINARY})
    @action(detail=True, methods=["get"])
    def transmittal(self, request: Request, pk: str) -> FileResponse:
        """The transmittal."""
        row = self.get_object()
        return stored_file(row.transmittal, "application/pdf", f"Transmittal, {row.archive_name[:-4]}.pdf")

    @extend_schema(responses={(200, "application/zip"): OpenApiTypes.BINARY})
    @action(detail=True, methods=["get"])
    def archive(self, request: Request, pk: str) -> FileResponse:
        """All files in one archive."""
        row = self.get_object()
        return stored_file(row.archive, "application/zip", row.archive_name)

    @extend_schema(request=None, responses=IssueSerializer)
    @action(detail=True, methods=["post"])
    def send(self, request: Request, pk: str) -> Response:
        """Send it once more."""
        row = self.get_object()
        sending.send_again(row)
        return Response(IssueSerializer(_issues().get(pk=row.issue_id)).data)

    @extend_schema(request=None, responses=IssueSerializer)
    @action(detail=True, methods=["post"])
    def withdraw(self, request: Request, pk: str) -> Response:
        """End the link by which it is fetched."""
        row = self.get_object()
        sending.withdraw(row.sent)
        return Response(IssueSerializer(_issues().get(pk=row.issue_id)).data)

    @extend_schema(request=None, responses={202: RemakeSerializer})
    @action(detail=True, methods=["post"])
    def remake(self, request: Request, pk: str) -> Response:
        """Make the files again from what was frozen, and compare them with what was sent."""
        made = issuing.order_remake(self.get_object())
        made.refresh_from_db()
        return Response(RemakeSerializer(made).data, status=status.HTTP_202_ACCEPTED)


class IssuedFileViewSet(ProjectRows, viewsets.GenericViewSet[IssuedFile]):
    """Files that were sent."""

    queryset = IssuedFile.objects.none()
    to_project = "recipient__issue__project"
    rows = IssuedFile.objects.all

    @extend_schema(responses={(200, "*/*"): OpenApiTypes.BINARY})
    @action(detail=True, methods=["get"])
    def file(self, request: Request, pk: str) -> FileResponse:
        """The file, as it was sent."""
        row = self.get_object()
        return stored_file(row.file, MEDIA_TYPES.get(row.form, "application/octet-stream"), row.name)


class RemakeViewSet(ProjectRows, mixins.RetrieveModelMixin, viewsets.GenericViewSet[Remake]):
    """Files that are made again."""

    serializer_class = RemakeSerializer
    queryset = Remake.objects.none()
    to_project = "job__project"

    @staticmethod
    def rows() -> QuerySet[Remake]:
        return Remake.objects.select_related("job")


class ComparisonViewSet(ProjectRows, mixins.RetrieveModelMixin, viewsets.GenericViewSet[Compared]):
    """Two states of sheets compared."""

    needs = "look"
    serializer_class = ComparisonSerializer
    queryset = Compared.objects.none()
    to_project = "job__project"

    @staticmethod
    def rows() -> QuerySet[Compared]:
        return Compared.objects.select_related("job")

    @extend_schema(request=ComparisonRequestSerializer, responses={202: ComparisonSerializer})
    def create(self, request: Request) -> Response:
        """Compare two states, in the background."""
        wanted = given_by(ComparisonRequestSerializer, request)
        made = comparisons.order_comparison(wanted["old"], wanted["new"], ignore_moves=wanted["ignore_moves"])
        made.refresh_from_db()
        return Response(ComparisonSerializer(made).data, status=status.HTTP_202_ACCEPTED)

    @extend_schema(
        parameters=[OpenApiParameter("which", str, enum=["before", "after", "over", "printed"])],
        responses={(200, "image/svg+xml"): OpenApiTypes.BINARY},
    )
    @action(detail=True, methods=["get"])
    def picture(self, request: Request, pk: str) -> FileResponse:
        """The older state, the newer, one over the other, or that printed."""
        row, which = self.get_object(), request.query_params.get("which", "over")
        if which not in ("before", "after", "over", "printed") or not getattr(row, which):
            raise NotFound("There is no such picture of this comparison.")
        if which == "printed":
            return stored_file(row.printed, "application/pdf", f"{file_name(' and '.join(row.names))}.pdf")
        return stored_file(getattr(row, which), "image/svg+xml")


@listed_by_project
class DayStateViewSet(ProjectRows, mixins.ListModelMixin, viewsets.GenericViewSet[DayState]):
    """Sheets as they were on earlier days, the newest first."""

    serializer_class = DayStateSerializer
    queryset = DayState.objects.none()
    to_project = "sheet__project"
    rows = DayState.objects.all


class RevisionOffersView(APIView):
    """The next revisions of sheets."""

    needs = "look"

    @extend_schema(request=RevisionRequestSerializer, responses=RevisionOfferSerializer(many=True))
    def post(self, request: Request) -> Response:
        """What each sheet's next revision is, and whether it differs from what was issued of it."""
        wanted = given_by(RevisionRequestSerializer, request)
        offers = services.revision_offers(wanted["project"], wanted["sheets"], wanted["purpose"])
        return Response(RevisionOfferSerializer(offers, many=True).data)


class IssueChoicesView(APIView):
    """What there is to choose from; it never changes."""

    @extend_schema(responses=IssueChoicesSerializer)
    def get(self, request: Request) -> Response:
        schemes = [{"name": name, "scheme": dump(scheme)} for name, scheme in SCHEMES.items()]
        return Response(IssueChoicesSerializer({"purposes": PURPOSES, "schemes": schemes}).data)


class RegisterOfIssuesView(APIView):
    """The register as a document."""

    @extend_schema(
        parameters=[
            OpenApiParameter("project", OpenApiTypes.UUID, required=True),
            OpenApiParameter("form", str, enum=["pdf", "xlsx"]),
        ],
        responses={(200, "*/*"): OpenApiTypes.BINARY},
    )
    def get(self, request: Request) -> HttpResponse:
        """All sheets by all issues, printed or as a workbook."""
        project = project_asked_for(request)
        form = "xlsx" if request.query_params.get("form") == "xlsx" else "pdf"
        register = records.register_of_issues(project)
        data = run_apart(f"drafting.issuing.register:register_{form}", register)
        return made_file(data, f"Register {project.number} {project.name}", form)
