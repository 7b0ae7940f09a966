"""Annotation as a Django app."""

from typing import Any

from django.apps import AppConfig
from django.db.models.signals import post_migrate


class AnnotationsConfig(AppConfig):
    name = "server.annotations"

    def ready(self) -> None:
        from server.annotations.models import TableFile
        from server.annotations.placing import pieces_on
        from server.common.pruning import register_files
        from server.sheets.composing import register_pieces

        post_migrate.connect(_load, sender=self)
        register_pieces(pieces_on)
        register_files(TableFile, "file", of="project")


def _load(**kwargs: Any) -> None:
    from drafting.annotation.symbol_set import SYMBOL_PRESETS
    from server.annotations.models import LibrarySymbol
    from server.projects.presets import load_presets

    load_presets(LibrarySymbol, SYMBOL_PRESETS)
