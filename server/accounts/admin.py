"""Accounts for administrators."""

from django.contrib import admin

from server.accounts.models import AccessToken, Preferences, SignedIn


@admin.register(SignedIn)
class SignedInAdmin(admin.ModelAdmin[SignedIn]):
    list_display = ["user", "since", "address", "browser"]

    def has_add_permission(self, request: object) -> bool:
        return False


@admin.register(AccessToken)
class AccessTokenAdmin(admin.ModelAdmin[AccessToken]):
    list_display = ["name", "user", "scope", "made", "last_used"]
    readonly_fields = ["digest"]

    def has_add_permission(self, request: object) -> bool:
        return False


admin.site.register(Preferences)
