"""Changes as a Django app."""

from django.apps import AppConfig


class ChangesConfig(AppConfig):
    name = "server.changes"
