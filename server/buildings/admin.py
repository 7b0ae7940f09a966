"""Model versions for administrators."""

from django.contrib import admin

from server.buildings.models import ModelVersion


@admin.register(ModelVersion)
class ModelVersionAdmin(admin.ModelAdmin[ModelVersion]):
    list_display = ["project", "number", "file_name", "file_size", "created", "created_by"]
