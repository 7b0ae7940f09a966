"""Checking for administrators."""

from django.contrib import admin

from server.checks.models import CheckRules, Waiver

admin.site.register([Waiver, CheckRules])
