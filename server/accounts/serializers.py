"""What is received and sent about signing in."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers


class CredentialsSerializer(serializers.Serializer[Any]):
    username = serializers.CharField()
    password = serializers.CharField(trim_whitespace=False)


class SessionSerializer(serializers.Serializer[Any]):
    username = serializers.CharField(allow_blank=True, help_text="Who is signed in; blank for nobody.")
