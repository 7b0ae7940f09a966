"""Jobs as a Django app."""

from django.apps import AppConfig


class JobsConfig(AppConfig):
    name = "server.jobs"
