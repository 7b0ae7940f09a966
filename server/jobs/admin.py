"""Jobs for administrators."""

from django.contrib import admin

from server.jobs.models import Job


@admin.register(Job)
class JobAdmin(admin.ModelAdmin[Job]):
    list_display = ["about", "kind", "state", "project", "created", "finished"]
    list_filter = ["kind", "state"]
