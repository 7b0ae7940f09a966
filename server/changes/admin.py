"""Changes for administrators."""

from django.contrib import admin

from server.changes.models import MadeChange

admin.site.register(MadeChange)
