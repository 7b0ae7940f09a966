"""Jobs as they are sent."""

from __future__ import annotations

from functools import cached_property

from rest_framework import serializers

from server.jobs.models import Job
from server.jobs.workers import any_alive


class JobSerializer(serializers.ModelSerializer[Job]):
    paused = serializers.SerializerMethodField(help_text="Whether no worker is there to do it just now.")

    def get_paused(self, job: Job) -> bool:
        return not job.ended and not self._any_alive

    @cached_property
    def _any_alive(self) -> bool:
        return any_alive()

    class Meta:
        model = Job
        fields = [
            "id",
            "project",
            "kind",
            "state",
            "about",
            "subject",
            "stage",
            "share",
            "paused",
            "message",
            "created",
            "finished",
        ]
        read_only_fields = fields
