"""Annotation as a Django app."""

from django.apps import AppConfig


class AnnotationsConfig(AppConfig):
    name = "server.annotations"

    def ready(self) -> None:
        from server.annotations.services import pieces_on
        from server.sheets.composing import register_pieces

        register_pieces(pieces_on)
