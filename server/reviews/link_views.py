"""The API behind the link of a review. It needs no account: whoever has the link may look and comment."""

from __future__ import annotations

from typing import Any

from django.http import FileResponse, HttpResponse
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import status
from rest_framework.exceptions import NotFound, ValidationError
from rest_framework.parsers import MultiPartParser
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.throttling import BaseThrottle
from rest_framework.views import APIView

from drafting.plotting.files import file_name
from drafting.review.tiles import read_tile
from drafting.sheets.picture import MAX_BYTES
from server.common import storage
from server.common.problems import Unreadable
from server.common.responses import YEAR, stored_file
from server.common.serializers import given_by
from server.reviews import commenting, links
from server.reviews.models import Comment, CommentPicture, LinkUse, ReviewLink, ReviewSheet
from server.reviews.serializers import (
    AnsweringSerializer,
    CommentPictureSerializer,
    LookedAtSerializer,
    PictureUploadSerializer,
    SaidSerializer,
    SayingSerializer,
    WordSerializer,
)

#: What a form adds to the file in it; bytes.
FORM_PARTS = 10_000
FOREVER = f"private, max-age={YEAR}, immutable"


class LinkView(APIView):
    """Something behind a link. What one says is slowed down."""

    authentication_classes = ()
    permission_classes = [AllowAny]

    def get_throttles(self) -> list[BaseThrottle]:
        return [links.LinkThrottle()] if self.request.method == "POST" else []

    def finalize_response(self, request: Request, response: Any, *args: Any, **kwargs: Any) -> Any:
        done = super().finalize_response(request, response, *args, **kwargs)
        done.headers["Referrer-Policy"] = "no-referrer"
        return done


class ReviewedView(LinkView):
    @extend_schema(responses=LookedAtSerializer)
    def get(self, request: Request, secret: str) -> Response:
        """What is reviewed."""
        link = links.found(secret)
        inside = links.is_entered(request, link)
        if inside:
            links.note(request, link, LinkUse.Kind.OPENED)
        review = link.review
        told = {
            "locked": not inside,
            "project": review.project.name,
            "name": review.name,
            "message": review.message if inside else "",
            "asked_by": review.asked_by,
            "until": review.until,
            "person": link.name,
            "sheets": [_looked_at(sheet) for sheet in review.sheets.all()] if inside else [],
        }
        return Response(LookedAtSerializer(told).data)

    @extend_schema(request=WordSerializer, responses={204: None})
    def post(self, request: Request, secret: str) -> Response:
        """Give the word that it asks for."""
        link = links.found(secret)
        given = given_by(WordSerializer, request)
        links.enter(request, link, given["word"])
        return Response(status=status.HTTP_204_NO_CONTENT)


def _looked_at(sheet: ReviewSheet) -> dict[str, Any]:
    drawings = [
        {
            "name": drawing.name,
            "box": [drawing.box.x, drawing.box.y, drawing.box.width, drawing.box.height],
            "ratio": 0.0 if drawing.eye.distance is not None else drawing.placement.ratio,
        }
        for drawing in commenting.places_of(sheet.places).drawings
    ]
    names = ("id", "number", "title", "revision", "width", "height", "levels")
    return {**{name: getattr(sheet, name) for name in names}, "drawings": drawings}


def _comments(link: ReviewLink) -> Any:
    rows = Comment.objects.filter(reviewed__review=link.review_id)
    return rows.prefetch_related("answers", "pictures")


def _author(link: ReviewLink, given: str) -> str:
    name = link.name or given.strip()
    if not name:
        raise ValidationError({"author": "Say who you are, so that you can be answered."})
    return name


class SaidView(LinkView):
    @extend_schema(responses=SaidSerializer(many=True))
    def get(self, request: Request, secret: str) -> Response:
        """All comments of the review."""
        link = links.entered(request, secret)
        return Response(SaidSerializer(_comments(link), many=True).data)

    @extend_schema(request=SayingSerializer, responses={201: SaidSerializer})
    def post(self, request: Request, secret: str) -> Response:
        """Comment on a sheet."""
        link = links.entered(request, secret)
        given = given_by(SayingSerializer, request)
        author = _author(link, given["author"])
        reviewed = get_object_or_404(link.review.sheets, pk=given["sheet"])
        past = commenting.PastSheet.reviewed(reviewed)
        made = commenting.comment_on(
            past, given["marks"], given["text"], author, Comment.Origin.LINK, link=link
        )
        links.note(request, link, LinkUse.Kind.COMMENTED, author)
        return Response(SaidSerializer(_comments(link).get(pk=made.pk)).data, status.HTTP_201_CREATED)


class AnsweringView(LinkView):
    @extend_schema(request=AnsweringSerializer, responses={201: SaidSerializer})
    def post(self, request: Request, secret: str, comment: str) -> Response:
        """Answer a comment of the review."""
        link = links.entered(request, secret)
        given = given_by(AnsweringSerializer, request)
        row = get_object_or_404(_comments(link), pk=comment)
        author = _author(link, given["author"])
        commenting.answer(row, given["text"], author)
        links.note(request, link, LinkUse.Kind.ANSWERED, author)
        return Response(SaidSerializer(_comments(link).get(pk=row.pk)).data, status.HTTP_201_CREATED)


class CommentPicturesView(LinkView):
    parser_classes = [MultiPartParser]

    @extend_schema(request=PictureUploadSerializer, responses={201: CommentPictureSerializer})
    def post(self, request: Request, secret: str, comment: str) -> Response:
        """Add a picture to a comment that was made by this link, as PNG or JPEG."""
        link = links.entered(request, secret)
        row = get_object_or_404(_comments(link), pk=comment, link=link)
        _refuse_large(request)
        given = given_by(PictureUploadSerializer, request)
        sent = given["file"]
        made = commenting.add_picture(row, sent.read(), sent.name)
        return Response(CommentPictureSerializer(made).data, status.HTTP_201_CREATED)


def _refuse_large(request: Request) -> None:
    """Refuse a picture before any of it is received.

    Raises:
        Unreadable: it is too large.
    """
    length = request.META.get("CONTENT_LENGTH") or "0"
    size = int(length) if length.isdigit() else 0
    if size > MAX_BYTES + FORM_PARTS:
        raise Unreadable(
            f"This picture has {size / 1e6:.0f} MB. A picture has at most {MAX_BYTES / 1e6:.0f} MB; "
            "make it smaller."
        )


class CommentPictureView(LinkView):
    @extend_schema(responses={(200, "image/*"): OpenApiTypes.BINARY})
    def get(self, request: Request, secret: str, picture: str) -> FileResponse:
        """A picture of a comment of the review."""
        link = links.entered(request, secret)
        row = get_object_or_404(CommentPicture, pk=picture, comment__reviewed__review=link.review_id)
        response = stored_file(row.file, f"image/{row.form}")
        response.headers["Cache-Control"] = FOREVER
        return response


class TileView(LinkView):
    @extend_schema(responses={(200, "image/png"): OpenApiTypes.BINARY})
    def get(
        self, request: Request, secret: str, sheet: str, level: int, row: int, column: int
    ) -> HttpResponse:
        """A part of a sheet as pixels."""
        link = links.entered(request, secret)
        reviewed = get_object_or_404(link.review.sheets, pk=sheet)
        levels = reviewed.levels
        if level >= len(levels) or row >= levels[level]["rows"] or column >= levels[level]["columns"]:
            raise NotFound("There is no such part of this sheet.")
        tile = read_tile(storage.path_of(reviewed.tiles), level, row, column)
        response = HttpResponse(tile, content_type="image/png")
        response.headers["Cache-Control"] = FOREVER
        return response


class ReviewedPdfView(LinkView):
    @extend_schema(responses={(200, "application/pdf"): OpenApiTypes.BINARY})
    def get(self, request: Request, secret: str) -> FileResponse:
        """All sheets of the review, to be commented in a reader of PDF."""
        link = links.entered(request, secret)
        links.note(request, link, LinkUse.Kind.FETCHED)
        return stored_file(link.review.pdf, "application/pdf", f"{file_name(link.review.name)}.pdf")
