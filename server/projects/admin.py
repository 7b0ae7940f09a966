"""Projects for administrators."""

from django.contrib import admin

from server.projects.models import Project


@admin.register(Project)
class ProjectAdmin(admin.ModelAdmin[Project]):
    list_display = ["name", "number", "owner", "archived", "created"]
    search_fields = ["name", "number"]
