"""Annotation for administrators."""

from django.contrib import admin

from server.annotations.models import Annotation, AnnotationStyle, LibrarySymbol, NoteOfList, TableFile

admin.site.register([Annotation, AnnotationStyle, LibrarySymbol, NoteOfList, TableFile])
