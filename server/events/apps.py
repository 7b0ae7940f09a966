"""Events as a Django app."""

from django.apps import AppConfig


class EventsConfig(AppConfig):
    name = "server.events"

    def ready(self) -> None:
        from server.events.telling import listen

        listen()
