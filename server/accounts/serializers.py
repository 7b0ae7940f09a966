"""What is received and sent about signing in."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from server.accounts.models import AccessToken, Preferences, SignedIn


class CredentialsSerializer(serializers.Serializer[Any]):
    username = serializers.CharField()
    password = serializers.CharField(trim_whitespace=False)


class SessionSerializer(serializers.Serializer[Any]):
    username = serializers.CharField(allow_blank=True, help_text="Who is signed in; blank for nobody.")
    administers = serializers.BooleanField(help_text="Whether they see to people and data of all.")


class PasswordSerializer(serializers.Serializer[Any]):
    """The password that somebody has, and the one that it is to be."""

    old = serializers.CharField(trim_whitespace=False, max_length=200)
    new = serializers.CharField(trim_whitespace=False, max_length=200)


class PreferencesSerializer(serializers.ModelSerializer[Preferences]):
    class Meta:
        model = Preferences
        fields = ["language", "titles", "dates", "lengths", "register", "first_steps"]


class SignedInSerializer(serializers.ModelSerializer[SignedIn]):
    """A browser in which one is signed in."""

    here = serializers.SerializerMethodField(help_text="Whether it is the one that asks.")

    class Meta:
        model = SignedIn
        fields = ["id", "since", "address", "browser", "here"]

    def get_here(self, row: SignedIn) -> bool:
        return bool(row.session == self.context["request"].session.session_key)


class AccessTokenSerializer(serializers.ModelSerializer[AccessToken]):
    """A token by which a program comes in. What it says is told once, when it is made."""

    class Meta:
        model = AccessToken
        fields = ["id", "name", "scope", "made", "last_used"]
        read_only_fields = ["made", "last_used"]


class NewTokenSerializer(AccessTokenSerializer):
    token = serializers.CharField(read_only=True)

    class Meta(AccessTokenSerializer.Meta):
        fields = [*AccessTokenSerializer.Meta.fields, "token"]
