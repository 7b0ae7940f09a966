"""Pen tables and plot settings for administrators."""

from django.contrib import admin

from server.projects.models import NamedRow
from server.styles.models import PenTable, PlotSettings


@admin.register(PenTable, PlotSettings)
class NamedRowAdmin(admin.ModelAdmin[NamedRow]):
    list_display = ["name", "project", "key"]
