"""Operations as a Django app."""

from django.apps import AppConfig


class OperationsConfig(AppConfig):
    name = "server.operations"

    def ready(self) -> None:
        from server.operations.metrics import register

        register()
