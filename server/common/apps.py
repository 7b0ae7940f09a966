"""What all apps share, as a Django app."""

from django.apps import AppConfig
from django.db.models.signals import post_migrate


class CommonConfig(AppConfig):
    name = "server.common"

    def ready(self) -> None:
        from server.common.beside import end_with_launcher
        from server.common.written import count_writes

        end_with_launcher()
        post_migrate.connect(count_writes, sender=self)
