"""What was found wrong with a set, and what of it was let stand."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from server.common.models import VersionedModel
from server.projects.models import Project


class CheckRun(models.Model):
    """The last check of a project's set.

    Attributes:
        state: the state of the set that was checked; another now means that it has changed since.
        findings: the core's Findings.
        seconds: how long it took.
        fingerprints: what each sheet was like, by its id: the core's hash of it.
    """

    project = models.OneToOneField(Project, models.CASCADE, primary_key=True, related_name="check_run")
    state = models.CharField(max_length=64)
    findings = models.JSONField(default=list)
    fingerprints = models.JSONField(default=dict)
    seconds = models.FloatField(default=0.0)
    finished = models.DateTimeField(auto_now=True)

    def __str__(self) -> str:
        return f"Check of {self.project}"


class Waiver(VersionedModel):
    """A finding that is let stand, with the reason, and by whom."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="waivers")
    #: The key of the core's Finding.
    finding = models.CharField(max_length=64)
    #: What it said when it was waived.
    words = models.TextField(blank=True)
    reason = models.CharField(max_length=400)
    by = models.ForeignKey(
        settings.AUTH_USER_MODEL, models.SET_NULL, null=True, editable=False, related_name="+"
    )
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["created"]
        constraints = [models.UniqueConstraint(fields=["project", "finding"], name="one_waiver_of_a_finding")]

    def __str__(self) -> str:
        return f"{self.words}: {self.reason}"


class CheckRules(VersionedModel):
    """Which rules a project checks, and how much each matters. Each project has one."""

    project = models.OneToOneField(Project, models.CASCADE, related_name="check_rules")
    #: By the key of a rule that differs from what it is by itself: a severity, or “off”.
    choices = models.JSONField(default=dict)
    #: Figures that rules go by, where they differ: by rule and limit, such as `too-small.text`.
    limits = models.JSONField(default=dict)

    def __str__(self) -> str:
        return f"Rules of {self.project}"
