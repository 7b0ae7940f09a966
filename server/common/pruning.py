"""Putting away what nothing needs any more. Apps say which rows may go by themselves, and which files theirs
need."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterator
from datetime import timedelta
from pathlib import Path
from typing import Any

from django.conf import settings
from django.db import models

from server.common import storage

#: What is younger may still be wanted: by a change that is undone, or by a row that is being written.
GRACE = timedelta(days=1)

_tasks: list[Callable[[], None]] = []
_files: list[tuple[type[models.Model], tuple[str, ...], str]] = []


def register_task(task: Callable[[], None]) -> None:
    """Have rows pruned; `task` is called before files are looked at."""
    _tasks.append(task)


def register_files(model: type[models.Model], *fields: str, of: str = "") -> None:
    """Say that the fields of a model hold hashes of stored files. `of` is the way from a row to its project,
    as a lookup; blank for what is made anew from the rest whenever it is wanted, and serves whoever wants
    it."""
    _files.append((model, fields, of))


def file_columns() -> Iterator[tuple[str, str]]:
    """The table and column of every field that holds hashes of stored files."""
    for model, fields, _ in _files:
        for name in fields:
            column: Any = model._meta.get_field(name)
            yield model._meta.db_table, column.column


def size_of_all(project: Any) -> int:
    """How much the files take that rows of a project name, bytes; each counts once."""
    names = {
        name
        for model, fields, of in _files
        if of
        for row in model._default_manager.filter(**{of: project}).values_list(*fields)
        for name in row
        if name
    }
    paths = (storage.path_of(name) for name in names)
    return sum(path.stat().st_size for path in paths if path.is_file())


def is_old(path: Path) -> bool:
    """Whether a file has lain for longer than the grace, or than it takes to make one. One that is gone is
    not."""
    making = path.parent == storage.temporary_folder()
    grace = 2 * settings.JOB_TIME_LIMIT if making else GRACE.total_seconds()
    try:
        return time.time() - path.stat().st_mtime > grace
    except FileNotFoundError:
        return False


def prune() -> None:
    """Delete rows that nothing needs, then old files that no row needs."""
    for task in _tasks:
        task()
    old = [path for path in storage.stored_files() if is_old(path)]
    needed = set(_needed()) if old else set()
    for path in old:
        # One that has been stored again meanwhile is new, and a row may name it by now.
        if path.name not in needed and is_old(path):
            path.unlink(missing_ok=True)


def _needed() -> Iterator[Any]:
    for model, fields, _ in _files:
        for row in model._default_manager.values_list(*fields).iterator():
            yield from row
