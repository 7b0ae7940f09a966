"""Projects for administrators."""

from django.contrib import admin

from server.projects.models import Invitation, Project


@admin.register(Project)
class ProjectAdmin(admin.ModelAdmin[Project]):
    list_display = ["name", "number", "owner", "archived", "created"]
    search_fields = ["name", "number"]


@admin.register(Invitation)
class InvitationAdmin(admin.ModelAdmin[Invitation]):
    list_display = ["project", "by", "made", "until", "used_by"]
    readonly_fields = ["digest"]

    def has_add_permission(self, request: object) -> bool:
        return False
