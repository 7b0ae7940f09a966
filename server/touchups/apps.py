"""Touch-ups as a Django app."""

from django.apps import AppConfig


class TouchUpsConfig(AppConfig):
    name = "server.touchups"

    def ready(self) -> None:
        from server.sheets.composing import register_touch_ups
        from server.touchups.finding import touched_up

        register_touch_ups(touched_up)
