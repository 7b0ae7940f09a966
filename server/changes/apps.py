"""Changes as a Django app."""

from django.apps import AppConfig


class ChangesConfig(AppConfig):
    name = "server.changes"

    def ready(self) -> None:
        from server.changes import history
        from server.common.pruning import register_task
        from server.projects.rows import register_deleted, register_recorder

        register_recorder(history.record)
        register_deleted(history.deleted_row)
        register_task(history.forget)
