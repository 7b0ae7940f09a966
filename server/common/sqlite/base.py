"""Django's SQLite, with one thing more: on a disk that cannot be written to, what is there can be read."""

from __future__ import annotations

import os
import sqlite3
from pathlib import Path
from typing import Any

from django.db import OperationalError
from django.db.backends.sqlite3 import base

#: Ways to open a database without writing, in this order: with the log of changes that is beside it, and as a
#: file that nobody changes, which is what it is where there is no log.
_READ_ONLY = ("mode=ro", "immutable=1")


class DatabaseWrapper(base.DatabaseWrapper):
    init_commands: list[str]

    def get_new_connection(self, conn_params: dict[str, Any]) -> Any:
        try:
            return super().get_new_connection(conn_params)
        except (OperationalError, sqlite3.OperationalError):
            path = Path(str(conn_params["database"]))
            if not path.exists() or os.access(path.parent, os.W_OK):
                raise
            kept = self.init_commands
            self.init_commands = []
            try:
                return self._opened(conn_params, path)
            finally:
                self.init_commands = kept

    def _opened(self, conn_params: dict[str, Any], path: Path) -> Any:
        for number, way in enumerate(_READ_ONLY, 1):
            try:
                made = super().get_new_connection(
                    {**conn_params, "database": f"file:{path}?{way}", "uri": True}
                )
                made.execute("SELECT 1 FROM sqlite_master LIMIT 1")
            except sqlite3.OperationalError:
                if number == len(_READ_ONLY):
                    raise
            else:
                return made
        return None
