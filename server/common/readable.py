"""Rows whose stored data were damaged. Whatever reads several rows leaves such ones out and says which, so
that all others are read."""

from __future__ import annotations

import logging
from collections.abc import Callable, Iterable, Iterator
from typing import Any, TypeVar

from drafting.errors import DraftingError

R = TypeVar("R")
T = TypeVar("T")
#: What reading a damaged row may raise, for anything at all may be stored there; not what a database raises.
DAMAGE = (DraftingError, ArithmeticError, AttributeError, LookupError, TypeError, ValueError)

log = logging.getLogger(__name__)


def readable(
    rows: Iterable[R], read: Callable[[R], T], leave_out: Callable[[R, Exception], object] | None = None
) -> Iterator[tuple[R, T]]:
    """Rows, each with what `read` makes of it, without those that cannot be read.

    Args:
        leave_out: is told each row that cannot be read, and why not.
    """
    for row in rows:
        try:
            made = read(row)
        except DAMAGE as error:
            log.warning("%s %s cannot be read: %r", type(row).__name__, getattr(row, "pk", ""), error)
            if leave_out is not None:
                leave_out(row, error)
        else:
            yield row, made


def name_of(row: Any) -> str:
    """What a row is called, damaged as it may be: what it is, its name, and where it stands."""
    what = f"{row._meta.verbose_name}"
    sheet, view = getattr(row, "sheet", None), getattr(row, "view", None)
    if sheet is not None and view is not None:
        return f"{what} “{view.name}” on {sheet.number}"
    try:
        name = str(row).encode("utf-8", "replace").decode()
    except DAMAGE:
        name = ""
    named = f"{what} “{name}”" if name else what
    if sheet is not None:
        return f"{named} on {sheet.number}"
    return named if view is None else f"{named} in “{view.name}”"


def why_not(error: Exception) -> str:
    """Why a row cannot be read, in a sentence."""
    return str(error) if isinstance(error, DraftingError) else "What is stored of it is damaged."
