"""The API of reviews and comments for those who work in a project."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from django.db.models import QuerySet
from django.http import FileResponse, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import mixins, status, viewsets
from rest_framework.decorators import action
from rest_framework.exceptions import ValidationError
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.common.responses import YEAR, made_file, stored_file
from server.common.serializers import given_by
from server.jobs.apart import run_apart
from server.projects.roles import ability_for, require
from server.projects.rows import ProjectRows, RowKind, RowViewSet, listed_by_project
from server.projects.serializers import project_asked_for
from server.reviews import asking, commenting, picturing, reading, scanning, writing
from server.reviews.models import (
    Comment,
    CommentFile,
    CommentPicture,
    LinkUse,
    Review,
    ReviewLink,
    Scan,
    ScanFile,
)
from server.reviews.serializers import (
    AnswerRequestSerializer,
    AskedReviewSerializer,
    CommentFileSerializer,
    CommentPictureSerializer,
    CommentSerializer,
    CommentUploadSerializer,
    LinkUseSerializer,
    NewLinkSerializer,
    ReviewLinkSerializer,
    ReviewRequestSerializer,
    ReviewSerializer,
    ReviewUntilSerializer,
    ScanFileSerializer,
    ScanSerializer,
    ScanUploadSerializer,
    SecretLinkSerializer,
)


def _reviews() -> QuerySet[Review]:
    return Review.objects.select_related("job").prefetch_related("sheets", "links__uses")


def _secret_of(link: ReviewLink, secret: str) -> dict[str, Any]:
    return {"id": link.pk, "name": link.name, "secret": secret}


@listed_by_project
class ReviewViewSet(
    ProjectRows, mixins.ListModelMixin, mixins.RetrieveModelMixin, viewsets.GenericViewSet[Review]
):
    """Reviews that were asked for in one's own projects, the oldest first."""

    serializer_class = ReviewSerializer
    queryset = Review.objects.none()
    rows = staticmethod(_reviews)

    @extend_schema(request=ReviewRequestSerializer, responses={201: AskedReviewSerializer})
    def create(self, request: Request) -> Response:
        """Ask for a review of an issue or of sheets, which are made ready in the background."""
        wanted = given_by(ReviewRequestSerializer, request)
        about = {key: wanted[key] for key in ("name", "message", "until", "word")}
        review, links = asking.ask(
            wanted["project"],
            request.user,
            about,
            wanted["issue"] or wanted["sheets"],
            wanted["people"],
            anyone=wanted["anyone"],
        )
        told = {
            "review": _reviews().get(pk=review.pk),
            "links": [_secret_of(link, secret) for link, secret in links],
        }
        return Response(AskedReviewSerializer(told).data, status.HTTP_201_CREATED)

    def _told(self, review: Review) -> Response:
        return Response(ReviewSerializer(_reviews().get(pk=review.pk)).data)

    @extend_schema(request=ReviewUntilSerializer, responses=ReviewSerializer)
    @action(detail=True, methods=["post"])
    def extend(self, request: Request, pk: str) -> Response:
        """Let its links lead there until another date; one that was withdrawn is open again."""
        review = self.get_object()
        until = given_by(ReviewUntilSerializer, request)["until"]
        if until <= timezone.now():
            raise ValidationError({"until": "Choose a date that has not passed."})
        review.until, review.withdrawn = until, False
        review.save(update_fields=["until", "withdrawn"])
        return self._told(review)

    @extend_schema(request=None, responses=ReviewSerializer)
    @action(detail=True, methods=["post"])
    def withdraw(self, request: Request, pk: str) -> Response:
        """End all of its links. What was said is kept."""
        review = self.get_object()
        review.withdrawn = True
        review.save(update_fields=["withdrawn"])
        return self._told(review)

    @extend_schema(request=NewLinkSerializer, responses={201: SecretLinkSerializer})
    @action(detail=True, methods=["post"])
    def links(self, request: Request, pk: str) -> Response:
        """Make a link for one more person, or for whoever has it."""
        link, secret = asking.add_link(
            self.get_object(), given_by(NewLinkSerializer, request)["name"].strip()
        )
        return Response(SecretLinkSerializer(_secret_of(link, secret)).data, status.HTTP_201_CREATED)

    @extend_schema(responses=LinkUseSerializer(many=True))
    @action(detail=True, pagination_class=None)
    def uses(self, request: Request, pk: str) -> Response:
        """Every use of its links, the newest first."""
        uses = LinkUse.objects.filter(link__review=self.get_object())
        return Response(LinkUseSerializer(uses, many=True).data)

    @extend_schema(responses={(200, "application/pdf"): OpenApiTypes.BINARY})
    @action(detail=True)
    def pdf(self, request: Request, pk: str) -> HttpResponse:
        """All of its sheets as one PDF, with what was said of them as annotations."""
        review = self.get_object()
        return made_file(writing.commented_pdf(review), review.name, "pdf")


class ReviewLinkViewSet(ProjectRows, mixins.DestroyModelMixin, viewsets.GenericViewSet[ReviewLink]):
    """Links to reviews; deleted, one leads nowhere."""

    serializer_class = ReviewLinkSerializer
    queryset = ReviewLink.objects.none()
    to_project = "review__project"
    rows = ReviewLink.objects.all

    @extend_schema(request=None, responses=SecretLinkSerializer)
    @action(detail=True, methods=["post"])
    def renew(self, request: Request, pk: str) -> Response:
        """Make a link anew: the one that there was leads nowhere."""
        link = self.get_object()
        return Response(SecretLinkSerializer(_secret_of(link, asking.renew(link))).data)


def _comments() -> QuerySet[Comment]:
    return Comment.objects.select_related("reviewed").prefetch_related("answers", "pictures")


COMMENTS = RowKind(CommentSerializer, commenting.comment_service, _comments, needs="check")


@listed_by_project
class CommentViewSet(RowViewSet):
    """What is said of the sheets of one's own projects."""

    needs = "check"
    kind = COMMENTS
    rows = staticmethod(_comments)
    queryset = Comment.objects.none()

    @extend_schema(request=AnswerRequestSerializer, responses=CommentSerializer)
    @action(detail=True, methods=["post"])
    def answer(self, request: Request, pk: str) -> Response:
        """Answer a comment, and say how it stands then."""
        row = self.get_object()
        given = given_by(AnswerRequestSerializer, request)
        author = request.user.get_username()
        with transaction.atomic():
            made = commenting.answer(row, given["text"], author, user=request.user, state=given["state"])
            if given["pictured"]:
                picturing.order(made)
        return Response(COMMENTS.data(row, self.get_serializer_context()))


class CommentSummaryView(APIView):
    """All comments as a document."""

    @extend_schema(
        parameters=[
            OpenApiParameter("project", OpenApiTypes.UUID, required=True),
            OpenApiParameter("form", str, enum=["pdf", "xlsx"]),
        ],
        responses={(200, "*/*"): OpenApiTypes.BINARY},
    )
    def get(self, request: Request) -> HttpResponse:
        """All that was said of the sheets and answered, printed or as a workbook."""
        project = project_asked_for(request)
        form = "xlsx" if request.query_params.get("form") == "xlsx" else "pdf"
        data = run_apart(f"drafting.review.summary:summary_{form}", writing.summary_of(project))
        return made_file(data, f"Comments {project.number} {project.name}", form)


class CommentBcfView(APIView):
    """All comments as a BCF file."""

    @extend_schema(
        parameters=[OpenApiParameter("project", OpenApiTypes.UUID, required=True)],
        responses={(200, "application/octet-stream"): OpenApiTypes.BINARY},
    )
    def get(self, request: Request) -> HttpResponse:
        """All that was said of the sheets, for those who work in the model: BCF-XML 2.1."""
        project = project_asked_for(request)
        return made_file(writing.bcf_of(project), f"Comments {project.number} {project.name}", "bcf")


class CommentFileViewSet(ProjectRows, mixins.RetrieveModelMixin, viewsets.GenericViewSet[CommentFile]):
    """Files with comments that are read."""

    needs = "check"
    serializer_class = CommentFileSerializer
    queryset = CommentFile.objects.none()
    to_project = "job__project"
    parser_classes = [MultiPartParser]

    @staticmethod
    def rows() -> QuerySet[CommentFile]:
        return CommentFile.objects.select_related("job")

    @extend_schema(request=CommentUploadSerializer, responses={202: CommentFileSerializer})
    def create(self, request: Request) -> Response:
        """Read the comments of a PDF of sheets that were issued or reviewed, or of a BCF file, in the
        background."""
        given = given_by(CommentUploadSerializer, request)
        sent = given["file"]
        row = reading.order_reading(given["project"], sent.name, sent.size, sent.chunks())
        row.refresh_from_db()
        return Response(CommentFileSerializer(row).data, status.HTTP_202_ACCEPTED)


SCANS = RowKind(ScanSerializer, scanning.scan_service, Scan.objects.all)


@listed_by_project
class ScanViewSet(RowViewSet):
    """Scans of marked prints under the sheets of one's own projects."""

    kind = SCANS
    rows = Scan.objects.all
    to_project = "sheet__project"
    queryset = Scan.objects.none()

    @extend_schema(responses={(200, "image/jpeg"): OpenApiTypes.BINARY})
    @action(detail=True)
    def pixels(self, request: Request, pk: str) -> FileResponse:
        """The picture."""
        response = stored_file(self.get_object().file, "image/jpeg")
        response.headers["Cache-Control"] = f"private, max-age={YEAR}, immutable"
        return response


class ScanFileViewSet(ProjectRows, mixins.RetrieveModelMixin, viewsets.GenericViewSet[ScanFile]):
    """Scans that are read."""

    serializer_class = ScanFileSerializer
    queryset = ScanFile.objects.none()
    to_project = "job__project"
    parser_classes = [MultiPartParser]

    @staticmethod
    def rows() -> QuerySet[ScanFile]:
        return ScanFile.objects.select_related("job")

    @extend_schema(request=ScanUploadSerializer, responses={202: ScanFileSerializer})
    def create(self, request: Request) -> Response:
        """Lay a scan of a print under its sheet, in the background."""
        given = given_by(ScanUploadSerializer, request)
        sheet, sent = given["sheet"], given["file"]
        require(sheet.project, request.user, [ability_for(request)])
        row = scanning.order(sheet, sent.name, sent.size, sent.chunks())
        row.refresh_from_db()
        return Response(ScanFileSerializer(row).data, status.HTTP_202_ACCEPTED)


class CommentPictureViewSet(ProjectRows, viewsets.GenericViewSet[CommentPicture]):
    """Pictures with comments."""

    serializer_class = CommentPictureSerializer
    queryset = CommentPicture.objects.none()
    to_project = "comment__project"
    rows = CommentPicture.objects.all

    @extend_schema(responses={(200, "image/*"): OpenApiTypes.BINARY})
    @action(detail=True)
    def pixels(self, request: Request, pk: str) -> FileResponse:
        """The picture."""
        row = get_object_or_404(self.get_queryset(), pk=pk)
        response = stored_file(row.file, f"image/{row.form}")
        response.headers["Cache-Control"] = f"private, max-age={YEAR}, immutable"
        return response
