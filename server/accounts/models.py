"""From where somebody is signed in, and the tokens by which programs come in for them."""

from __future__ import annotations

import hashlib
import secrets

from django.conf import settings
from django.db import models

#: Letters of what a token begins with, by which it is told from other secrets that are found somewhere.
PREFIX = "dunefold_"


class SignedIn(models.Model):
    """A browser in which somebody is signed in, as long as its session lasts."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="signed_in")
    session = models.CharField(max_length=40, unique=True)
    address = models.GenericIPAddressField(null=True)
    #: What the browser calls itself.
    browser = models.CharField(max_length=300, blank=True)
    since = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-since"]

    def __str__(self) -> str:
        return f"{self.user} since {self.since:%Y-%m-%d %H:%M}"


class AccessToken(models.Model):
    """A token with which a program works for somebody, until it is revoked. What is kept is its hash."""

    class Scope(models.TextChoices):
        READ = "read"
        WRITE = "write"

    user = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="access_tokens")
    name = models.CharField(max_length=80)
    digest = models.CharField(max_length=64, unique=True)
    scope = models.CharField(max_length=8, choices=Scope.choices)
    made = models.DateTimeField(auto_now_add=True)
    last_used = models.DateField(null=True)

    class Meta:
        ordering = ["-made"]

    def __str__(self) -> str:
        return self.name


class Preferences(models.Model):
    """How somebody likes the interface to be, in whichever browser."""

    class Dates(models.TextChoices):
        """How dates are written on the screen."""

        ISO = "iso"
        DAY_FIRST = "day first"
        MONTH_FIRST = "month first"

    class Language(models.TextChoices):
        """What the screen speaks. Sheets speak the language of their project."""

        ENGLISH = "en"
        GERMAN = "de"

    class Lengths(models.TextChoices):
        """What lengths of the building are told in on the screen."""

        METRES = "metres"
        MILLIMETRES = "millimetres"
        FEET = "feet"

    class RegisterStyle(models.TextChoices):
        """How sheets stand in the register."""

        PICTURES = "pictures"
        LINES = "lines"

    user = models.OneToOneField(
        settings.AUTH_USER_MODEL, models.CASCADE, primary_key=True, related_name="preferences"
    )
    language = models.CharField(max_length=2, choices=Language.choices, default=Language.ENGLISH)
    #: The language of sheets, and of the names of views, in new projects of one's own.
    titles = models.CharField(max_length=2, choices=Language.choices, default=Language.ENGLISH)
    dates = models.CharField(max_length=12, choices=Dates.choices, default=Dates.ISO)
    lengths = models.CharField(max_length=12, choices=Lengths.choices, default=Lengths.METRES)
    register = models.CharField(max_length=10, choices=RegisterStyle.choices, default=RegisterStyle.PICTURES)
    #: Whether a new project shows the way to its first sheet.
    first_steps = models.BooleanField(default=True)

    class Meta:
        verbose_name_plural = "preferences"

    def __str__(self) -> str:
        return f"of {self.user}"


def new_token() -> str:
    """A token that cannot be guessed."""
    return PREFIX + secrets.token_urlsafe(32)


def digest_of(token: str) -> str:
    """What is kept of a token. It is random and long, and needs no slow hash."""
    return hashlib.sha256(token.encode(errors="replace")).hexdigest()
