"""How often each table of the database has been written to, by whichever process: what was made of tables
that nobody has written to since holds still. The database counts by itself."""

from __future__ import annotations

import re
import sqlite3
import threading
from collections.abc import Callable, Hashable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, TypeVar, cast

from django.db import connection
from django.db.models import Model

#: Where it is counted.
TABLE = "common_written"
_READ = f"SELECT name, number FROM {TABLE}"
_NAME = re.compile(r'"(\w+)"')
T = TypeVar("T")
#: So many things are remembered.
MAX_REMEMBERED = 5000


@dataclass(frozen=True)
class State:
    """The database at some time, or a little later.

    Attributes:
        number: another one whenever anything at all has been written.
        written: by the name of each table, how often it has been.
    """

    number: int
    written: Mapping[str, int]

    def of(self, tables: Iterable[str]) -> tuple[int | None, ...]:
        """How often some tables have been written to; None for one that is not counted."""
        return tuple(self.written.get(table) for table in tables)


class _States:
    """Looks at the database for others. SQLite tells a connection whether others than it have written
    (`PRAGMA data_version`), which costs next to nothing to ask. Those who come while somebody looks share the
    look after that: each by itself would wait for all that are before it."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._watching: dict[str, sqlite3.Connection] = {}
        #: How many looks have begun, and the last of them that told something.
        self._begun = self._told = 0
        self._version = -1
        self._state = State(-1, {})

    def now(self, database: str) -> State:
        begun = self._begun
        with self._lock:
            watching = self._watching.get(database)
            if watching is not None and self._told > begun:
                # Somebody has looked since this was asked.
                return self._state
            self._begun += 1
            if watching is None:
                watching = sqlite3.connect(f"file:{database}?mode=ro", uri=True, check_same_thread=False)
                self._watching, self._version = {database: watching}, -1
            (version,) = watching.execute("PRAGMA data_version").fetchone()
            if version != self._version:
                written = dict(watching.execute(_READ).fetchall())
                self._version, self._state = version, State(self._state.number + 1, written)
            self._told = self._begun
            return self._state


_states = _States()
_lock = threading.Lock()
#: What was read, by what was asked for, with how often its tables had been written to before.
_known: dict[tuple[type[Model], Hashable], tuple[Any, Any]] = {}


def state_now() -> State | None:
    """The database as it is; None where that is not known, or where a transaction is under way whose own
    writes it would not tell."""
    if connection.in_atomic_block:
        # What is not committed yet is known to this request alone.
        return None
    try:
        return _states.now(str(connection.settings_dict["NAME"]))
    except sqlite3.Error:
        # On a read-only disk it may not be told what was written; then each is made for itself.
        return None


def written_here() -> Mapping[str, int]:
    """How often each table has been written to, as the transaction that is under way sees it."""
    with connection.cursor() as cursor:
        cursor.execute(_READ)
        return dict(cursor.fetchall())


def remembered(key: Hashable, models: Sequence[type[Model]], read: Callable[[], T | None]) -> T | None:
    """What `read` gave since the tables of these models were last written to, which nobody may change; what
    is not there is not remembered. The key is one of its own among those with the same first model."""
    state = state_now()
    if state is None:
        return read()
    written = state.of(model._meta.db_table for model in models)
    if None in written:
        # Nobody would tell that it was written to.
        return read()
    with _lock:
        before, known = _known.get((models[0], key), (None, None))
    if before == written:
        return cast(T, known)
    found = read()
    if found is not None:
        with _lock:
            if len(_known) >= MAX_REMEMBERED:
                _known.clear()
            _known[models[0], key] = written, found
    return found


@lru_cache(maxsize=2000)
def tables_in(sql: str) -> frozenset[str]:
    """The names in a question to the database, among which are those of all its tables.

    >>> sorted(tables_in('SELECT "a"."id" FROM "a" WHERE "a"."of" = %s'))
    ['a', 'id', 'of']
    """
    return frozenset(_NAME.findall(sql))


def count_writes(**_: Any) -> None:
    """Have it counted from now on for each table that there is."""
    with connection.cursor() as cursor:
        cursor.execute(f"CREATE TABLE IF NOT EXISTS {TABLE} (name TEXT PRIMARY KEY, number INTEGER NOT NULL)")
        cursor.execute("SELECT name FROM sqlite_master WHERE type = 'trigger'")
        there = {name for (name,) in cursor.fetchall()}
        for table in connection.introspection.table_names(cursor):
            if table == TABLE:
                continue
            cursor.execute(f"INSERT OR IGNORE INTO {TABLE} VALUES (%s, 0)", [table])
            for verb in ("insert", "update", "delete"):
                trigger = f"written_{table}_{verb}"
                if trigger not in there:
                    cursor.execute(
                        f'CREATE TRIGGER "{trigger}" AFTER {verb} ON "{table}" BEGIN '
                        f"UPDATE {TABLE} SET number = number + 1 WHERE name = '{table}'; END"
                    )
