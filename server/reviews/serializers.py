"""Reviews and comments as they are received and sent."""

from __future__ import annotations

from typing import Any

from django.db.models import QuerySet
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from drafting.errors import SheetError
from drafting.review.marks import Marks
from drafting.review.places import Placement
from drafting.review.scan_placement import ScanPlacement
from drafting.review.tiles import TileLevel
from server.common.serializers import RowSerializer
from server.common.shapes import ShapeField
from server.issues.models import Issue
from server.jobs.serializers import JobSerializer
from server.plots.serializers import OwnSheetsField
from server.projects.models import Project
from server.projects.serializers import OwnProjectField
from server.reviews.models import (
    MAX_NAME,
    MAX_TEXT,
    Answer,
    Comment,
    CommentFile,
    CommentPicture,
    LinkUse,
    Review,
    ReviewLink,
    ReviewSheet,
    Scan,
    ScanFile,
)


@extend_schema_field(OpenApiTypes.UUID)
class OwnIssueField(serializers.PrimaryKeyRelatedField[Issue]):
    """An issue of one's own projects."""

    def get_queryset(self) -> QuerySet[Issue]:
        return Issue.objects.filter(project__in=Project.of(self.context["request"].user))


class ReviewRequestSerializer(serializers.Serializer[Any]):
    """What is asked of whom: an issue, or sheets as they are."""

    project = OwnProjectField()
    name = serializers.CharField(max_length=120)
    message = serializers.CharField(max_length=MAX_TEXT, allow_blank=True, default="")
    issue = OwnIssueField(required=False, allow_null=True, default=None)
    sheets = OwnSheetsField(many=True, required=False, default=list)
    until = serializers.DateTimeField()
    word = serializers.CharField(
        max_length=80, allow_blank=True, default="", help_text="What whoever has a link must know."
    )
    people = serializers.ListField(
        child=serializers.CharField(max_length=MAX_NAME), max_length=200, default=list,
        help_text="Names; each gets a link of their own.",
    )  # fmt: skip
    anyone = serializers.BooleanField(default=False, help_text="Whether there is a link for whoever has it.")

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        chosen = [given["issue"]] if given["issue"] else given["sheets"]
        if any(row.project_id != given["project"].pk for row in chosen):
            raise serializers.ValidationError("Choose an issue or sheets of this project.")
        return given


class ReviewLinkSerializer(serializers.ModelSerializer[ReviewLink]):
    """For whom a link is, and how often it was used."""

    opened = serializers.SerializerMethodField()
    last_used = serializers.SerializerMethodField()

    class Meta:
        model = ReviewLink
        fields = ["id", "name", "opened", "last_used"]
        read_only_fields = fields

    def get_opened(self, link: ReviewLink) -> int:
        """How often it was opened."""
        return sum(use.kind == LinkUse.Kind.OPENED for use in link.uses.all())

    @extend_schema_field(serializers.DateTimeField(allow_null=True))
    def get_last_used(self, link: ReviewLink) -> Any:
        return max((use.at for use in link.uses.all()), default=None)


class SecretLinkSerializer(serializers.Serializer[Any]):
    """A link with its secret, which is told only now."""

    id = serializers.UUIDField()
    name = serializers.CharField()
    secret = serializers.CharField(help_text="The last part of its address.")


class LinkUseSerializer(serializers.ModelSerializer[LinkUse]):
    class Meta:
        model = LinkUse
        fields = ["link", "kind", "name", "address", "at"]
        read_only_fields = fields


class ReviewSheetSerializer(serializers.ModelSerializer[ReviewSheet]):
    class Meta:
        model = ReviewSheet
        fields = ["id", "sheet", "number", "title", "revision", "width", "height"]
        read_only_fields = fields


class ReviewSerializer(serializers.ModelSerializer[Review]):
    """A review, its sheets and its links."""

    sheets = ReviewSheetSerializer(many=True, read_only=True)
    links = ReviewLinkSerializer(many=True, read_only=True)
    job = JobSerializer(read_only=True, allow_null=True)
    has_word = serializers.SerializerMethodField()
    ready = serializers.SerializerMethodField()

    class Meta:
        model = Review
        fields = [
            "id", "project", "number", "name", "message", "issue", "until", "has_word", "withdrawn", "ready",
            "asked_by", "asked", "job", "sheets", "links",
        ]  # fmt: skip
        read_only_fields = fields

    def get_has_word(self, review: Review) -> bool:
        """Whether whoever has a link must know a word."""
        return bool(review.word)

    def get_ready(self, review: Review) -> bool:
        """Whether its sheets can be looked at."""
        return bool(review.pdf)


class AskedReviewSerializer(serializers.Serializer[Any]):
    """A review that was asked for, and its links."""

    review = ReviewSerializer()
    links = SecretLinkSerializer(many=True)


class ReviewUntilSerializer(serializers.Serializer[Any]):
    until = serializers.DateTimeField()


class NewLinkSerializer(serializers.Serializer[Any]):
    name = serializers.CharField(max_length=MAX_NAME, allow_blank=True, default="")


class CommentPictureSerializer(serializers.ModelSerializer[CommentPicture]):
    class Meta:
        model = CommentPicture
        fields = ["id", "answer", "caption"]
        read_only_fields = fields


class AnswerSerializer(serializers.ModelSerializer[Answer]):
    own = serializers.SerializerMethodField()

    class Meta:
        model = Answer
        fields = ["id", "author", "own", "text", "made"]
        read_only_fields = fields

    def get_own(self, answer: Answer) -> bool:
        """Whether somebody who works in the project gave it."""
        return answer.user_id is not None


_SAID = [
    "id", "number", "reviewed", "sheet_number", "revision", "text", "author", "made", "state", "done_in",
]  # fmt: skip


class CommentSerializer(RowSerializer):
    """What somebody says of a sheet, how it stands, and what was answered. Only how it stands, to whom it is
    given and until when can be changed."""

    review = serializers.UUIDField(source="reviewed.review_id", read_only=True, allow_null=True, default=None)
    marks = ShapeField(Marks, "mark", name="CommentMarks", read_only=True)
    placement = ShapeField(Placement, "place", read_only=True)
    element = serializers.DictField(read_only=True)
    answers = AnswerSerializer(many=True, read_only=True)
    pictures = CommentPictureSerializer(many=True, read_only=True)

    class Meta:
        model = Comment
        fixed = ()
        fields = [
            *_SAID, "project", "review", "sheet", "marks", "viewport", "placement", "element", "origin",
            "assigned", "due", "answers", "pictures", "version",
        ]  # fmt: skip
        read_only_fields = [
            *(name for name in _SAID if name not in ("id", "state", "done_in")),
            "project", "sheet", "viewport", "origin",
        ]  # fmt: skip

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        if self.instance is None:
            raise serializers.ValidationError("A comment is made on a sheet that is reviewed.")
        return super().validate(given)


class AnswerRequestSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=MAX_TEXT)
    state = serializers.ChoiceField(
        Comment.State.choices, required=False, allow_blank=True, default="",
        help_text="How the comment stands then; blank for answered.",
    )  # fmt: skip
    pictured = serializers.BooleanField(
        default=False, help_text="Whether it shows the place as it was looked at and as it is now."
    )


class CommentFileSerializer(serializers.ModelSerializer[CommentFile]):
    """A file with comments that is read, and what came of it."""

    id = serializers.UUIDField(source="job_id", read_only=True)
    job = JobSerializer(read_only=True)
    made = serializers.IntegerField(source="found.made", default=0, read_only=True)
    known = serializers.IntegerField(source="found.known", default=0, read_only=True)
    notes = serializers.ListField(
        source="found.notes", child=serializers.CharField(), default=list, read_only=True
    )

    class Meta:
        model = CommentFile
        fields = ["id", "job", "name", "made", "known", "notes"]
        read_only_fields = fields


class ScanSerializer(RowSerializer):
    """A scan under a sheet. Only its name and how it lies can be changed."""

    sheet = OwnSheetsField()
    placement = ShapeField(ScanPlacement, "place of a scan", SheetError)

    class Meta:
        model = Scan
        fixed = ("sheet",)
        fields = ["id", "sheet", "name", "width", "height", "placement", "found", "version"]
        read_only_fields = ["width", "height", "found"]

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        if self.instance is None:
            raise serializers.ValidationError("A scan is made of a file.")
        return super().validate(given)


class ScanFileSerializer(serializers.ModelSerializer[ScanFile]):
    """A scan that is read, and what came of it."""

    id = serializers.UUIDField(source="job_id", read_only=True)
    job = JobSerializer(read_only=True)

    class Meta:
        model = ScanFile
        fields = ["id", "job", "name", "sheet", "scan"]
        read_only_fields = fields


class ScanUploadSerializer(serializers.Serializer[Any]):
    sheet = OwnSheetsField()
    file = serializers.FileField(max_length=200)


class CommentUploadSerializer(serializers.Serializer[Any]):
    project = OwnProjectField()
    file = serializers.FileField(max_length=200)


class LookedAtDrawingSerializer(serializers.Serializer[Any]):
    """A drawing on a sheet: where it lies, and how large real lengths are; a ratio of 0 for a perspective."""

    name = serializers.CharField()
    box = serializers.ListField(
        child=serializers.FloatField(), help_text="Left, foot, width and height; paper mm."
    )
    ratio = serializers.FloatField(help_text="Paper mm for one real mm.")


class LookedAtSheetSerializer(serializers.Serializer[Any]):
    """A sheet as whoever has a link looks at it."""

    id = serializers.UUIDField()
    number = serializers.CharField()
    title = serializers.CharField()
    revision = serializers.CharField()
    width = serializers.FloatField(help_text="Paper mm.")
    height = serializers.FloatField(help_text="Paper mm.")
    levels = serializers.ListField(child=ShapeField(TileLevel, "level"))
    drawings = LookedAtDrawingSerializer(many=True)


class LookedAtSerializer(serializers.Serializer[Any]):
    """A review behind its link; without its sheets as long as its word was not given."""

    locked = serializers.BooleanField(help_text="Whether it asks for a word.")
    project = serializers.CharField()
    name = serializers.CharField()
    message = serializers.CharField()
    asked_by = serializers.CharField()
    until = serializers.DateTimeField()
    person = serializers.CharField(help_text="For whom the link is; blank for whoever has it.")
    sheets = LookedAtSheetSerializer(many=True)


class WordSerializer(serializers.Serializer[Any]):
    word = serializers.CharField(max_length=80, trim_whitespace=True)


class SaidSerializer(serializers.ModelSerializer[Comment]):
    """A comment as whoever has a link sees it."""

    marks = ShapeField(Marks, "mark", name="CommentMarks", read_only=True)
    element = serializers.DictField(read_only=True)
    answers = AnswerSerializer(many=True, read_only=True)
    pictures = CommentPictureSerializer(many=True, read_only=True)

    class Meta:
        model = Comment
        fields = [*_SAID, "marks", "element", "answers", "pictures"]
        read_only_fields = fields


class SayingSerializer(serializers.Serializer[Any]):
    """A comment on a sheet of the review; `author` where the link is for whoever has it."""

    sheet = serializers.UUIDField()
    marks = ShapeField(Marks, "mark", name="CommentMarks", required=False, default=list)
    text = serializers.CharField(max_length=MAX_TEXT, allow_blank=True, default="")
    author = serializers.CharField(max_length=MAX_NAME, allow_blank=True, default="")


class AnsweringSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=MAX_TEXT)
    author = serializers.CharField(max_length=MAX_NAME, allow_blank=True, default="")


class PictureUploadSerializer(serializers.Serializer[Any]):
    file = serializers.FileField(max_length=200)
