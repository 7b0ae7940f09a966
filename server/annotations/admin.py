"""Annotation for administrators."""

from django.contrib import admin

from server.annotations.models import Annotation

admin.site.register(Annotation)
