"""Findings, waivers and rules as they are received and sent."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from drafting.checks.findings import SEVERITIES, Finding
from server.checks.models import CheckRules, Waiver
from server.checks.services import CHOICES
from server.common.serializers import RowSerializer
from server.common.shapes import ShapeField
from server.jobs.serializers import JobSerializer
from server.projects.serializers import OwnProjectField


class WaiverSerializer(RowSerializer):
    """A finding that is let stand."""

    project = OwnProjectField()
    reason = serializers.CharField(max_length=400, error_messages={"blank": "Say why it is let stand."})
    by = serializers.CharField(source="by.username", read_only=True, default="")

    class Meta:
        model = Waiver
        fields = ["id", "project", "finding", "words", "reason", "by", "created", "version"]
        # A finding that is let stand twice is refused by the service, which says so.
        validators: list[Any] = []

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        given = super().validate(given)
        return given if self.instance is not None else {**given, "by": self.context["request"].user}


class CheckRulesSerializer(RowSerializer):
    """Which rules a project checks, and how much each matters."""

    project = OwnProjectField(read_only=False)
    choices = serializers.DictField(
        child=serializers.ChoiceField(choices=CHOICES), required=False,
        help_text="By the key of a rule that differs from what it is by itself.",
    )  # fmt: skip

    limits = serializers.DictField(
        child=serializers.FloatField(), required=False,
        help_text="Figures that rules go by, where they differ: by rule and limit, such as `too-small.text`.",
    )  # fmt: skip

    class Meta:
        model = CheckRules
        fields = ["id", "project", "choices", "limits", "version"]


class LimitSerializer(serializers.Serializer[Any]):
    """A figure that a rule goes by."""

    key = serializers.CharField()
    name = serializers.CharField()
    unit = serializers.CharField()
    value = serializers.FloatField()
    least = serializers.FloatField()
    most = serializers.FloatField()


class RuleSerializer(serializers.Serializer[Any]):
    """A rule, and how much it matters by itself."""

    key = serializers.CharField()
    name = serializers.CharField()
    severity = serializers.ChoiceField(choices=SEVERITIES)
    limits = LimitSerializer(many=True)


class ChecksSerializer(serializers.Serializer[Any]):
    """What the last check of a set has found."""

    findings = serializers.ListField(child=ShapeField(Finding, "finding"))
    fresh = serializers.BooleanField(help_text="Whether the set is as it was checked.")
    finished = serializers.DateTimeField(allow_null=True)
    seconds = serializers.FloatField(help_text="How long the last check took.")
    job = JobSerializer(allow_null=True, help_text="The check that is under way.")
