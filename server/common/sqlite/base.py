"""Django's SQLite, with two things more: on a disk that cannot be written to, what is there can be read; and
whoever writes in one process does so by turn."""

from __future__ import annotations

import os
import sqlite3
import threading
import time
from pathlib import Path
from typing import Any

from django.db import OperationalError
from django.db.backends.sqlite3 import base

#: Ways to open a database without writing, in this order: with the log of changes that is beside it, and as a
#: file that nobody changes, which is what it is where there is no log.
_READ_ONLY = ("mode=ro", "immutable=1")


#: SQLite lets one write at a time. Who waits there looks again now and then, and is let in by luck; who waits
#: here is let in as soon as another is done.
_turn = threading.Lock()


class DatabaseWrapper(base.DatabaseWrapper):
    init_commands: list[str]
    transaction_mode: str | None
    _has_turn = False

    def _start_transaction_under_autocommit(self) -> None:
        if self.transaction_mode == "DEFERRED":
            # It only reads, which SQLite lets in at any time.
            super()._start_transaction_under_autocommit()  # type: ignore[misc]
            return
        # One that waits in vain is told so by SQLite.
        self._has_turn = _turn.acquire(timeout=float(self.settings_dict["OPTIONS"]["timeout"]))
        try:
            super()._start_transaction_under_autocommit()  # type: ignore[misc]
        except BaseException:
            self._end_turn()
            raise

    def _commit(self) -> Any:
        super()._commit()  # type: ignore[misc]
        self._end_turn()

    def _rollback(self) -> Any:
        try:
            super()._rollback()  # type: ignore[misc]
        finally:
            self._end_turn()

    def _close(self) -> Any:
        try:
            super()._close()  # type: ignore[misc]
        finally:
            self._end_turn()

    def _end_turn(self) -> None:
        if self._has_turn:
            self._has_turn = False
            _turn.release()

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
                # When the disk can be written to again, so shall the next request.
                self.close_at = time.monotonic()
                return made
        return None
