"""Issues for administrators, to be looked at."""

from typing import Any

from django.contrib import admin
from django.http import HttpRequest

from server.issues.models import Issue, IssuedRecipient, IssuedSheet, Recipient


class RecordAdmin(admin.ModelAdmin[Any]):
    """A record is looked at, and not changed."""

    def has_add_permission(self, request: HttpRequest) -> bool:
        return False

    def has_change_permission(self, request: HttpRequest, obj: Any = None) -> bool:
        return False

    def has_delete_permission(self, request: HttpRequest, obj: Any = None) -> bool:
        return False


admin.site.register([Issue, IssuedSheet, IssuedRecipient], RecordAdmin)
admin.site.register(Recipient)
