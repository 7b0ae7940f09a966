"""What all apps share, as a Django app."""

from django.apps import AppConfig
from django.db.models.signals import post_migrate


class CommonConfig(AppConfig):
    name = "server.common"

    def ready(self) -> None:
        from server.common.written import count_writes

        post_migrate.connect(count_writes, sender=self)
