"""Views for administrators."""

from django.contrib import admin

from server.views.models import NamedLineSettings, ReceivedFile, Subset, View


@admin.register(View)
class ViewAdmin(admin.ModelAdmin[View]):
    list_display = ["name", "project", "held", "drawn_from"]
    list_filter = ["held"]


admin.site.register([Subset, NamedLineSettings, ReceivedFile])
