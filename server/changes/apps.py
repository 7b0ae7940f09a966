from django.apps import AppConfig


class ChangesConfig(AppConfig):
    name = "server.changes"
    label = "changes"
