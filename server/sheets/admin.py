"""Sheets for administrators."""

from django.contrib import admin

from server.sheets.models import Picture, Register, Sheet, Template


@admin.register(Sheet)
class SheetAdmin(admin.ModelAdmin[Sheet]):
    list_display = ["number", "title", "project", "paper"]
    search_fields = ["number", "title"]


admin.site.register([Template, Picture, Register])
