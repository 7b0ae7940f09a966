"""Touch-ups as a Django app."""

from django.apps import AppConfig


class TouchUpsConfig(AppConfig):
    name = "server.touchups"

    def ready(self) -> None:
        from server.sheets.composing import register_touch_ups
        from server.touchups.finding import touch_ups_in

        register_touch_ups(touch_ups_in)
