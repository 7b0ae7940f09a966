"""Reviews: sheets shown to people who need no account, and what they say of them."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.db import models
from django.utils import timezone

from drafting.review.marks import AnyMark, parse_marks
from server.common.models import UuidModel, VersionedModel
from server.issues.models import Issue, IssuedSheet
from server.jobs.models import Job
from server.projects.models import Project
from server.sheets.models import Sheet

#: As much as a comment or an answer may say.
MAX_TEXT, MAX_NAME = 4_000, 80


class Review(VersionedModel):
    """Sheets as they were, shown until a date to whoever has one of its links.

    Attributes:
        number: counted on within the project.
        issue: the issue that is reviewed; null for sheets as they are.
        word: the hash of a word that whoever has a link must know; blank for none.
        pdf: the hash of the sheets as one PDF; blank until they are ready.
    """

    project = models.ForeignKey(Project, models.CASCADE, related_name="reviews")
    number = models.PositiveIntegerField(editable=False)
    name = models.CharField(max_length=120)
    message = models.TextField(max_length=MAX_TEXT, blank=True)
    issue = models.ForeignKey(Issue, models.SET_NULL, null=True, related_name="+")
    until = models.DateTimeField()
    word = models.CharField(max_length=128, blank=True)
    withdrawn = models.BooleanField(default=False)
    asked_by = models.CharField(max_length=150)
    asked = models.DateTimeField(auto_now_add=True)
    pdf = models.CharField(max_length=64, blank=True)
    job = models.OneToOneField(Job, models.SET_NULL, null=True, related_name="review")

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["project", "number"], name="one_review_of_a_number")]

    def __str__(self) -> str:
        return self.name


class ReviewSheet(UuidModel):
    """A sheet as it is reviewed.

    Attributes:
        issued: as which it was issued; null for a sheet as it is.
        state, tiles, places: the hashes of the frozen sheet, of its pixels and of what is seen where; blank
            until they are ready.
        levels: the core's Levels of its tiles.
    """

    review = models.ForeignKey(Review, models.CASCADE, related_name="sheets")
    sheet = models.ForeignKey(Sheet, models.SET_NULL, null=True, related_name="reviewed")
    position = models.PositiveIntegerField()
    number = models.CharField(max_length=40)
    title = models.CharField(max_length=200, blank=True)
    revision = models.CharField(max_length=20, blank=True)
    width = models.FloatField(default=0.0)
    height = models.FloatField(default=0.0)
    issued = models.ForeignKey(IssuedSheet, models.SET_NULL, null=True, related_name="+")
    state = models.CharField(max_length=64, blank=True)
    tiles = models.CharField(max_length=64, blank=True)
    places = models.CharField(max_length=64, blank=True)
    levels = models.JSONField(default=list)

    class Meta:
        ordering = ["position"]

    def __str__(self) -> str:
        return f"{self.number} {self.revision}".strip()

    @property
    def position_in_pdf(self) -> int:
        """Which page of the review's PDF it is, from 0."""
        return self.review.sheets.filter(position__lt=self.position).count()


class ReviewLink(UuidModel):
    """A link to a review. What is kept of its secret is its hash.

    Attributes:
        name: for whom it is; blank for whoever has it, who then gives a name.
    """

    review = models.ForeignKey(Review, models.CASCADE, related_name="links")
    name = models.CharField(max_length=MAX_NAME, blank=True)
    digest = models.CharField(max_length=64, unique=True)

    class Meta:
        ordering = ["name", "pk"]

    def __str__(self) -> str:
        return self.name or "whoever has it"


class LinkUse(models.Model):
    """A use of a link."""

    class Kind(models.TextChoices):
        OPENED = "opened"
        REFUSED = "refused"
        COMMENTED = "commented"
        ANSWERED = "answered"
        FETCHED = "fetched"

    link = models.ForeignKey(ReviewLink, models.CASCADE, related_name="uses")
    kind = models.CharField(max_length=10, choices=Kind.choices)
    name = models.CharField(max_length=MAX_NAME, blank=True)
    address = models.GenericIPAddressField(null=True)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-at", "-pk"]

    def __str__(self) -> str:
        return f"{self.kind} {self.at:%Y-%m-%d %H:%M}"


class Comment(VersionedModel):
    """What somebody says of a sheet, with its place. It changes nothing that is drawn.

    Attributes:
        number: counted on within the project.
        reviewed: the sheet as it was looked at.
        sheet_number, revision: what that was called.
        marks: the core's marks, in mm of that sheet.
        viewport, placement: the drawing that its place lies in, and how that lay on the sheet.
        element: what lies there of the building: id, name, ifc_class, and the place `at` in model mm.
        eye: the camera of the drawing, for files about the model.
        author, user: who says it; `user` where they have an account.
        origin: how it came.
        source: by which it is known again when the same file comes once more; blank for none.
        done_in: the revision in which it was done.
    """

    class State(models.TextChoices):
        OPEN = "open"
        ANSWERED = "answered"
        DONE = "done"
        DECLINED = "declined"

    class Origin(models.TextChoices):
        LINK = "link"
        PDF = "pdf"
        BCF = "bcf"

    project = models.ForeignKey(Project, models.CASCADE, related_name="comments")
    number = models.PositiveIntegerField(editable=False)
    reviewed = models.ForeignKey(ReviewSheet, models.SET_NULL, null=True, related_name="comments")
    sheet = models.ForeignKey(Sheet, models.SET_NULL, null=True, related_name="comments")
    sheet_number = models.CharField(max_length=40, blank=True)
    revision = models.CharField(max_length=20, blank=True)
    text = models.TextField(max_length=MAX_TEXT, blank=True)
    marks = models.JSONField(default=list)
    viewport = models.CharField(max_length=36, blank=True)
    placement = models.JSONField(default=dict)
    element = models.JSONField(default=dict)
    eye = models.JSONField(default=dict)
    author = models.CharField(max_length=MAX_NAME)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    link = models.ForeignKey(ReviewLink, models.SET_NULL, null=True, related_name="comments")
    origin = models.CharField(max_length=8, choices=Origin.choices)
    source = models.CharField(max_length=64, blank=True)
    made = models.DateTimeField(default=timezone.now)
    state = models.CharField(max_length=8, choices=State.choices, default=State.OPEN)
    assigned = models.CharField(max_length=MAX_NAME, blank=True)
    due = models.DateField(null=True, blank=True)
    done_in = models.CharField(max_length=20, blank=True)

    class Meta:
        ordering = ["number"]
        constraints = [
            models.UniqueConstraint(fields=["project", "number"], name="one_comment_of_a_number"),
            models.UniqueConstraint(
                fields=["project", "source"], condition=~models.Q(source=""), name="one_comment_of_a_source"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.number} {self.author}"

    @property
    def marks_as_core(self) -> tuple[AnyMark, ...]:
        return parse_marks(self.marks)


class Answer(UuidModel):
    """An answer to a comment. Answers are added, and not changed."""

    comment = models.ForeignKey(Comment, models.CASCADE, related_name="answers")
    author = models.CharField(max_length=MAX_NAME)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    text = models.TextField(max_length=MAX_TEXT)
    source = models.CharField(max_length=64, blank=True)
    made = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["made", "pk"]

    def __str__(self) -> str:
        return f"{self.author} {self.made:%Y-%m-%d %H:%M}"


class CommentPicture(UuidModel):
    """A picture with a comment or an answer; what is kept is what was read of it.

    Attributes:
        caption: what it shows; blank for one that somebody sent.
    """

    comment = models.ForeignKey(Comment, models.CASCADE, related_name="pictures")
    answer = models.ForeignKey(Answer, models.CASCADE, null=True, related_name="pictures")
    caption = models.CharField(max_length=120, blank=True)
    form = models.CharField(max_length=8)
    file = models.CharField(max_length=64)

    def __str__(self) -> str:
        return self.caption or self.form


class Scan(VersionedModel):
    """A scan of a marked print, laid under its sheet on the board. It is no part of what is plotted.

    Attributes:
        width, height: pixels.
        placement: the core's ScanPlacement: how its pixels lie on the sheet.
        found: whether that was found by its frame.
    """

    sheet = models.ForeignKey(Sheet, models.CASCADE, related_name="scans")
    name = models.CharField(max_length=200)
    file = models.CharField(max_length=64)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    placement = models.JSONField()
    found = models.BooleanField()
    made = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["made"]

    def __str__(self) -> str:
        return self.name


class ScanFile(models.Model):
    """A scan that is read in the background, and what came of it."""

    job = models.OneToOneField(Job, models.CASCADE, primary_key=True, related_name="scan_file")
    sheet = models.ForeignKey(Sheet, models.CASCADE, related_name="+")
    name = models.CharField(max_length=200)
    source = models.CharField(max_length=64)
    scan = models.ForeignKey(Scan, models.SET_NULL, null=True, related_name="+")

    def __str__(self) -> str:
        return self.name


class CommentFile(models.Model):
    """A file with comments that is read in the background, and what came of it.

    Attributes:
        found: how many comments were `made` and `known`, and `notes` about what was odd.
    """

    job = models.OneToOneField(Job, models.CASCADE, primary_key=True, related_name="comment_file")
    name = models.CharField(max_length=200)
    source = models.CharField(max_length=64)
    form = models.CharField(max_length=4, choices=[("pdf", "pdf"), ("bcf", "bcf")])
    found: Any = models.JSONField(default=dict)

    def __str__(self) -> str:
        return self.name
