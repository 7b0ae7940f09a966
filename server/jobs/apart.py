"""Short work on what people bring, done while they wait, in a process of its own with tight limits: the web
process reads no files itself."""

from __future__ import annotations

from queue import Empty, LifoQueue
from typing import Any

from django.conf import settings

from drafting.progress import silent
from server.common import storage
from server.jobs.child import ChildProcess, ChildProcessFailed

#: As many pieces of work at once.
MAX_PROCESSES = 2
#: How long one piece of work may take, and how long it may wait for those before it; seconds.
TIME_LIMIT, MAX_WAIT = 15.0, 30.0

#: Processes that have nothing to do just now; a place where there is none yet is None.
_idle: LifoQueue[ChildProcess | None] = LifoQueue()
for _ in range(MAX_PROCESSES):
    _idle.put(None)


class Busy(ChildProcessFailed):
    """Too many others wait for the same."""


def run_apart(function: str, *arguments: Any) -> Any:
    """Run a function of the core, given as "module:name", apart from this process.

    Raises:
        DraftingError: the core refused the input.
        ChildProcessFailed: it crashed, took too long or too much memory, or too many others wait.
    """
    try:
        child = _idle.get(timeout=MAX_WAIT)
    except Empty as error:
        raise Busy("Many files are being read just now. Try again in a minute.") from error
    try:
        child = child or ChildProcess(settings.APART_MEMORY_LIMIT, storage.temporary_folder, warm=False)
        return child.run(function, arguments, silent, lambda: True, TIME_LIMIT, TIME_LIMIT)
    finally:
        _idle.put(child)
