"""Recipients, issues, comparisons and revisions as they are received and sent."""

from __future__ import annotations

import datetime
from typing import Any

from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from drafting.errors import SheetError
from drafting.issuing.difference import Difference
from drafting.issuing.recipients import Recipient as CoreRecipient
from drafting.sheets.revision_schemes import RevisionScheme
from server.common.serializers import RowSerializer
from server.common.shapes import ShapeField
from server.issues import sending
from server.issues.comparisons import project_of
from server.issues.models import (
    Compared,
    DayState,
    Issue,
    IssuedFile,
    IssuedRecipient,
    IssuedSheet,
    IssueOrder,
    Recipient,
    Remake,
    SentIssue,
)
from server.jobs.serializers import JobSerializer
from server.plots.serializers import OwnSheetsField, PlotSettingsField
from server.projects.models import Project
from server.projects.serializers import OwnProjectField


class RecipientSerializer(RowSerializer):
    """Somebody whom a project's sheets are sent to."""

    project = OwnProjectField()
    position = serializers.IntegerField(min_value=0, max_value=1_000_000, required=False)
    spec = ShapeField(CoreRecipient, "recipient", SheetError, "RecipientSpec")
    plot_settings = PlotSettingsField(
        required=False, allow_null=True, help_text="What sheets are plotted with; null for each one's own."
    )

    class Meta:
        model = Recipient
        fields = ["id", "project", "position", "spec", "plot_settings", "version"]


@extend_schema_field(OpenApiTypes.UUID)
class OwnRecipientsField(serializers.PrimaryKeyRelatedField[Recipient]):
    """A recipient of one of one's own projects."""

    def get_queryset(self) -> Any:
        return Recipient.objects.filter(project__in=Project.of(self.context["request"].user))


@extend_schema_field(OpenApiTypes.UUID)
class OwnIssuedSheetField(serializers.PrimaryKeyRelatedField[IssuedSheet]):
    """A sheet as it was issued, of one of one's own projects."""

    def get_queryset(self) -> Any:
        own = Project.of(self.context["request"].user)
        return IssuedSheet.objects.filter(issue__project__in=own).select_related("issue__project")


@extend_schema_field(OpenApiTypes.INT)
class OwnDayField(serializers.PrimaryKeyRelatedField[DayState]):
    """A sheet as it was on a day, of one of one's own projects."""

    def get_queryset(self) -> Any:
        own = Project.of(self.context["request"].user)
        return DayState.objects.filter(sheet__project__in=own).select_related("sheet__project")


class DayStateSerializer(serializers.ModelSerializer[DayState]):
    """A sheet as it was on a day."""

    class Meta:
        model = DayState
        fields = ["id", "sheet", "day", "number"]
        read_only_fields = fields


class IssueRequestSerializer(serializers.Serializer[Any]):
    """What is to be issued, to whom and why."""

    project = OwnProjectField()
    name = serializers.CharField(max_length=120, error_messages={"blank": "An issue has a name. Type one."})
    purpose = serializers.CharField(
        max_length=60, error_messages={"blank": "Say what it is issued for, such as Comment."}
    )
    date = serializers.DateField(
        error_messages={"invalid": "Write the date as year-month-day, such as 2026-03-16."}
    )
    reason = serializers.CharField(max_length=400, allow_blank=True, default="")
    sheets = OwnSheetsField(many=True)
    recipients = OwnRecipientsField(many=True)

    def validate_date(self, date: datetime.date) -> str:
        return date.isoformat()

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        for kind in ("sheets", "recipients"):
            if any(row.project_id != given["project"].pk for row in given[kind]):
                raise serializers.ValidationError({kind: f"Choose {kind} of this project."})
        return given


class IssueOrderSerializer(serializers.ModelSerializer[IssueOrder]):
    """An issue that is being made."""

    id = serializers.UUIDField(source="job_id", read_only=True)
    job = JobSerializer(read_only=True)

    class Meta:
        model = IssueOrder
        fields = ["id", "job", "name", "issue"]
        read_only_fields = fields


class IssuedSheetSerializer(serializers.ModelSerializer[IssuedSheet]):
    class Meta:
        model = IssuedSheet
        fields = ["id", "sheet", "number", "title", "revision", "paper", "scale", "state"]
        read_only_fields = fields


class IssuedFileSerializer(serializers.ModelSerializer[IssuedFile]):
    checksum = serializers.CharField(source="file", read_only=True, help_text="SHA-256.")

    class Meta:
        model = IssuedFile
        fields = ["id", "name", "form", "size", "checksum"]
        read_only_fields = fields


class SentIssueSerializer(serializers.ModelSerializer[SentIssue]):
    """How an issue has reached a recipient."""

    place = serializers.SerializerMethodField(
        help_text="The folder, the address of the mail, or the last part of the link's address."
    )

    def get_place(self, sent: SentIssue) -> str:
        return sending.secret_of(sent) if sent.recipient.as_core.delivery == "link" else sent.place

    class Meta:
        model = SentIssue
        fields = ["state", "message", "place", "until", "fetched", "at"]
        read_only_fields = fields


class IssuedRecipientSerializer(serializers.ModelSerializer[IssuedRecipient]):
    spec = ShapeField(CoreRecipient, "recipient", SheetError, "RecipientSpec", read_only=True)
    files = IssuedFileSerializer(many=True, read_only=True)
    sent = SentIssueSerializer(read_only=True, allow_null=True, default=None)

    class Meta:
        model = IssuedRecipient
        fields = ["id", "spec", "files", "sent", "archive_name", "archive_size"]
        read_only_fields = fields


class IssueSerializer(serializers.ModelSerializer[Issue]):
    """What left the office."""

    sheets = IssuedSheetSerializer(many=True, read_only=True)
    recipients = IssuedRecipientSerializer(many=True, read_only=True)
    findings = serializers.ListField(child=serializers.CharField(), read_only=True)

    class Meta:
        model = Issue
        fields = [
            "id", "project", "number", "name", "purpose", "date", "reason", "findings", "model_number",
            "issued_by", "issued", "sheets", "recipients",
        ]  # fmt: skip
        read_only_fields = fields


class RemakeSerializer(serializers.ModelSerializer[Remake]):
    """Files made again, and whether they are the same to the byte."""

    id = serializers.UUIDField(source="job_id", read_only=True)
    job = JobSerializer(read_only=True)

    class Meta:
        model = Remake
        fields = ["id", "job", "same"]
        read_only_fields = fields


class ComparisonRequestSerializer(serializers.Serializer[Any]):
    """Two states: each a sheet as it was issued, as it was on a day, or as it is now."""

    old_issued = OwnIssuedSheetField(required=False, allow_null=True, default=None)
    old_day = OwnDayField(required=False, allow_null=True, default=None)
    old_sheet = OwnSheetsField(required=False, allow_null=True, default=None)
    new_issued = OwnIssuedSheetField(required=False, allow_null=True, default=None)
    new_day = OwnDayField(required=False, allow_null=True, default=None)
    new_sheet = OwnSheetsField(required=False, allow_null=True, default=None)
    ignore_moves = serializers.BooleanField(default=True)

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        sides = {}
        for side in ("old", "new"):
            chosen = [row for kind in ("issued", "day", "sheet") if (row := given[f"{side}_{kind}"])]
            if len(chosen) != 1:
                raise serializers.ValidationError({f"{side}_sheet": "Choose one state to compare."})
            sides[side] = chosen[0]
        if len({project_of(row).pk for row in sides.values()}) > 1:
            raise serializers.ValidationError({"new_sheet": "Compare two states of one project."})
        return {**sides, "ignore_moves": given["ignore_moves"]}


class ComparisonSerializer(serializers.ModelSerializer[Compared]):
    """What two states differ in, once it is known."""

    id = serializers.UUIDField(source="job_id", read_only=True)
    job = JobSerializer(read_only=True)
    names = serializers.ListField(child=serializers.CharField(), read_only=True)
    size = serializers.ListField(
        child=serializers.FloatField(), read_only=True,
        help_text="Width and height of its pictures, and how much of their foot is no sheet; mm.",
    )  # fmt: skip
    differences = serializers.ListField(child=ShapeField(Difference, "difference"), read_only=True)

    class Meta:
        model = Compared
        fields = ["id", "job", "names", "size", "differences", "new_sheet"]
        read_only_fields = fields


class RevisionRequestSerializer(serializers.Serializer[Any]):
    """Sheets whose next revision is wanted, for a purpose."""

    project = OwnProjectField()
    sheets = OwnSheetsField(many=True)
    purpose = serializers.CharField(max_length=60, allow_blank=True, default="")


class RevisionOfferSerializer(serializers.Serializer[Any]):
    """The next revision of a sheet."""

    sheet = serializers.UUIDField()
    revision = serializers.CharField()
    issued = serializers.CharField(help_text="The revision in which it was issued last; blank for never.")
    differs = serializers.BooleanField(
        allow_null=True, help_text="Whether it differs from what was issued; null while that is not known."
    )


class NamedSchemeSerializer(serializers.Serializer[Any]):
    """A revision scheme in common use."""

    name = serializers.CharField()
    scheme = ShapeField(RevisionScheme, "revision scheme")


class IssueChoicesSerializer(serializers.Serializer[Any]):
    """What sheets are issued for in common use, and how revisions are counted."""

    purposes = serializers.ListField(child=serializers.CharField())
    schemes = NamedSchemeSerializer(many=True)
