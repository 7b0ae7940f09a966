"""Accounts: who is signed in, from where, and by which tokens programs come in."""

from django.apps import AppConfig


class AccountsConfig(AppConfig):
    name = "server.accounts"

    def ready(self) -> None:
        from server.accounts import services, signals
        from server.common.pruning import register_task

        signals.connect()
        register_task(services.prune)
