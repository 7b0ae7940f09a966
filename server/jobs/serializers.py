"""Jobs as they are sent."""

from __future__ import annotations

from rest_framework import serializers

from server.jobs.models import Job


class JobSerializer(serializers.ModelSerializer[Job]):
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
            "message",
            "created",
            "finished",
        ]
        read_only_fields = fields
