"""Recipients, what was issued to them, and what two states of a sheet differ in.

What was issued is a record: its rows are made once, whole, and never changed or deleted.
"""

from __future__ import annotations

from typing import Any, NoReturn

from django.conf import settings
from django.db import models

from drafting.errors import SheetError
from drafting.issuing.recipients import Recipient as CoreRecipient
from drafting.schema import parse
from server.buildings.models import ModelVersion
from server.common.models import UuidModel, VersionedModel
from server.jobs.models import Job
from server.projects.models import Project
from server.sheets.models import Sheet
from server.styles.models import PlotSettings

KEPT = "What was issued is kept as it was. Issue the sheets again in a new revision."


def parse_recipient(given: Any) -> CoreRecipient:
    """From plain data, as `dump` gives it.

    Raises:
        SheetError: something that no recipient has.
    """
    recipient: CoreRecipient = parse(CoreRecipient, given, "recipient", SheetError)
    return recipient


class RecordSet(models.QuerySet[Any]):
    """Rows that are made once."""

    def update(self, **values: Any) -> NoReturn:
        raise SheetError(KEPT)

    def delete(self) -> NoReturn:
        raise SheetError(KEPT)


class Record(UuidModel):
    """A row that is made once, and neither changed nor deleted."""

    objects = RecordSet.as_manager()

    class Meta:
        abstract = True

    def save(self, *args: Any, **kwargs: Any) -> None:
        if not self._state.adding:
            raise SheetError(KEPT)
        super().save(*args, **kwargs)

    def delete(self, *args: Any, **kwargs: Any) -> NoReturn:
        raise SheetError(KEPT)


class Recipient(VersionedModel):
    """Somebody whom a project's sheets are sent to."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="recipients")
    position = models.PositiveIntegerField(default=0)
    #: The core's Recipient.
    spec = models.JSONField()
    #: What sheets are plotted with for them; null where each has its own.
    plot_settings = models.ForeignKey(
        PlotSettings, models.SET_NULL, null=True, blank=True, related_name="recipients"
    )

    class Meta:
        ordering = ["position", "id"]

    def __str__(self) -> str:
        return str(self.spec.get("name", ""))

    @property
    def as_core(self) -> CoreRecipient:
        return parse_recipient(self.spec)


class IssueOrder(models.Model):
    """An issue that is to be made; nothing of it is there until all of it is.

    Attributes:
        reason: why it is issued though something is wrong with it.
        issue: what came of it.
    """

    job = models.OneToOneField(Job, models.CASCADE, primary_key=True, related_name="issue_order")
    name = models.CharField(max_length=120)
    purpose = models.CharField(max_length=60)
    date = models.CharField(max_length=10)
    reason = models.CharField(max_length=400, blank=True)
    sheets = models.ManyToManyField(Sheet, related_name="+")
    recipients = models.ManyToManyField(Recipient, related_name="+")
    ordered_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    issue = models.OneToOneField("Issue", models.SET_NULL, null=True, related_name="order")

    def __str__(self) -> str:
        return self.name


class Issue(Record):
    """Sheets that left the office, as they were.

    Attributes:
        number: counted on within the project.
        findings: what was wrong with it of the highest severity, in words.
        model_number: the number of the model's version that was newest then.
    """

    project = models.ForeignKey(Project, models.PROTECT, related_name="issues")
    number = models.PositiveIntegerField()
    name = models.CharField(max_length=120)
    purpose = models.CharField(max_length=60)
    date = models.CharField(max_length=10)
    reason = models.CharField(max_length=400, blank=True)
    findings = models.JSONField(default=list)
    model_version = models.ForeignKey(ModelVersion, models.SET_NULL, null=True, related_name="+")
    model_number = models.PositiveIntegerField(default=0)
    issued_by = models.CharField(max_length=150)
    issued = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["project", "number"], name="one_issue_of_a_number")]

    def __str__(self) -> str:
        return f"{self.name}, {self.date}"


class IssuedSheet(Record):
    """A sheet as it was issued.

    Attributes:
        sheet: the sheet that it was; null once that is deleted.
        fingerprint: the core's, by which it is known whether the sheet has changed since.
        state: the hash of the frozen sheet.
    """

    issue = models.ForeignKey(Issue, models.PROTECT, related_name="sheets")
    sheet = models.ForeignKey(Sheet, models.SET_NULL, null=True, related_name="issued")
    position = models.PositiveIntegerField()
    number = models.CharField(max_length=40)
    title = models.CharField(max_length=200, blank=True)
    revision = models.CharField(max_length=20, blank=True)
    paper = models.CharField(max_length=40)
    scale = models.CharField(max_length=60)
    fingerprint = models.CharField(max_length=64)
    state = models.CharField(max_length=64)

    class Meta:
        ordering = ["position"]

    def __str__(self) -> str:
        return f"{self.number} {self.revision}".strip()


class KeptFile(Record):
    """A file that the sheets of an issue are drawn from: linework or a picture, by its key."""

    issue = models.ForeignKey(Issue, models.PROTECT, related_name="kept_files")
    kind = models.CharField(max_length=10, choices=[("linework", "linework"), ("picture", "picture")])
    key = models.CharField(max_length=64)
    file = models.CharField(max_length=64)

    def __str__(self) -> str:
        return f"{self.kind} {self.key}"


class IssuedRecipient(Record):
    """Whom an issue was made for, as they were then, and what they were sent.

    Attributes:
        settings: the core's PlotSettings that each sheet was plotted with for them.
        transmittal, archive: the hashes of the transmittal, and of the ZIP of all files.
    """

    issue = models.ForeignKey(Issue, models.PROTECT, related_name="recipients")
    position = models.PositiveIntegerField()
    spec = models.JSONField()
    settings = models.JSONField(default=list)
    transmittal = models.CharField(max_length=64)
    archive = models.CharField(max_length=64)
    archive_name = models.CharField(max_length=160)
    archive_size = models.PositiveBigIntegerField()

    class Meta:
        ordering = ["position"]

    def __str__(self) -> str:
        return str(self.spec.get("name", ""))

    @property
    def as_core(self) -> CoreRecipient:
        return parse_recipient(self.spec)


class IssuedFile(Record):
    """A file that a recipient was sent; its hash is its checksum."""

    recipient = models.ForeignKey(IssuedRecipient, models.PROTECT, related_name="files")
    position = models.PositiveIntegerField()
    name = models.CharField(max_length=160)
    form = models.CharField(max_length=8)
    size = models.PositiveBigIntegerField()
    file = models.CharField(max_length=64)

    class Meta:
        ordering = ["position"]

    def __str__(self) -> str:
        return self.name


class SentIssue(UuidModel):
    """How an issue reaches a recipient, which may be tried again. It is there, waiting, from the moment at
    which the issue is recorded: what is recorded is sent, also when whoever was about to send it was stopped.

    Attributes:
        place: the folder, or the address of the mail.
        nonce, digest: of a link, what its secret is made of with the key of this installation, and the
            secret's hash; so whoever has the database alone has no link.
        until: when a link ends.
        fetched: how often files were fetched by the link.
    """

    class State(models.TextChoices):
        WAITING = "waiting"
        SENT = "sent"
        FAILED = "failed"
        WITHDRAWN = "withdrawn"

    recipient = models.OneToOneField(IssuedRecipient, models.PROTECT, related_name="sent")
    state = models.CharField(max_length=10, choices=State.choices, default=State.WAITING)
    message = models.CharField(max_length=400, blank=True)
    place = models.CharField(max_length=400, blank=True)
    nonce = models.CharField(max_length=32, blank=True)
    digest = models.CharField(max_length=64, blank=True, db_index=True)
    until = models.DateTimeField(null=True)
    fetched = models.PositiveIntegerField(default=0)
    at = models.DateTimeField(auto_now=True)

    def __str__(self) -> str:
        return f"{self.recipient}: {self.state}"


class DayState(models.Model):
    """A sheet as it was last on a day, where it had become another since the day before.

    Attributes:
        state: the hash of the frozen sheet.
    """

    sheet = models.ForeignKey(Sheet, models.CASCADE, related_name="days")
    day = models.DateField()
    number = models.CharField(max_length=40)
    fingerprint = models.CharField(max_length=64)
    state = models.CharField(max_length=64)

    class Meta:
        ordering = ["-day", "pk"]
        constraints = [models.UniqueConstraint(fields=["sheet", "day"], name="one_state_of_a_day")]

    def __str__(self) -> str:
        return f"{self.number} on {self.day}"


class DayFile(models.Model):
    """A file that the sheet of a day is drawn from."""

    of = models.ForeignKey(DayState, models.CASCADE, related_name="files")
    kind = models.CharField(max_length=10)
    key = models.CharField(max_length=64)
    file = models.CharField(max_length=64)

    def __str__(self) -> str:
        return f"{self.kind} {self.key}"


class Remake(models.Model):
    """A file that was issued, made again from what was frozen. `same` is whether it is the same to the
    byte."""

    job = models.OneToOneField(Job, models.CASCADE, primary_key=True, related_name="remake")
    recipient = models.ForeignKey(IssuedRecipient, models.CASCADE, related_name="+")
    same = models.BooleanField(null=True)

    def __str__(self) -> str:
        return str(self.recipient)


class Compared(models.Model):
    """Two states of sheets, and what differs between them. A side is a sheet as it was issued, as it was on
    an earlier day, or as it is now.

    Attributes:
        names: what the two states are called.
        differences: the core's Differences.
        before, after, over: hashes of the pictures of both and of one over the other; `printed` of its PDF.
    """

    job = models.OneToOneField(Job, models.CASCADE, primary_key=True, related_name="compared")
    old_issued = models.ForeignKey(IssuedSheet, models.CASCADE, null=True, related_name="+")
    old_day = models.ForeignKey(DayState, models.CASCADE, null=True, related_name="+")
    old_sheet = models.ForeignKey(Sheet, models.CASCADE, null=True, related_name="+")
    new_issued = models.ForeignKey(IssuedSheet, models.CASCADE, null=True, related_name="+")
    new_day = models.ForeignKey(DayState, models.CASCADE, null=True, related_name="+")
    new_sheet = models.ForeignKey(Sheet, models.CASCADE, null=True, related_name="+")
    ignore_moves = models.BooleanField(default=True)
    names = models.JSONField(default=list)
    size = models.JSONField(default=list)
    differences = models.JSONField(default=list)
    before = models.CharField(max_length=64, blank=True)
    after = models.CharField(max_length=64, blank=True)
    over = models.CharField(max_length=64, blank=True)
    printed = models.CharField(max_length=64, blank=True)

    def __str__(self) -> str:
        return " and ".join(self.names)
