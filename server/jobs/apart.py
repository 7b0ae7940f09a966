"""Short work on what people bring, done while they wait, in a process of its own with tight limits: the web
process reads no files itself."""

from __future__ import annotations

import threading
from typing import Any

from django.conf import settings

from drafting.progress import silent
from server.jobs.child import ChildProcess, ChildProcessFailed

#: How long one piece of work may take, and how long it may wait for those before it; seconds.
TIME_LIMIT, MAX_WAIT = 15.0, 30.0

_one_at_a_time = threading.Lock()
_child: ChildProcess | None = None


def run_apart(function: str, *arguments: Any) -> Any:
    """Run a function of the core, given as "module:name", apart from this process.

    Raises:
        DraftingError: the core refused the input.
        ChildProcessFailed: it crashed, took too long or too much memory, or too many others wait.
    """
    global _child
    if not _one_at_a_time.acquire(timeout=MAX_WAIT):
        raise ChildProcessFailed("Many files are being read just now. Try again in a minute.")
    try:
        _child = _child or ChildProcess(settings.APART_MEMORY_LIMIT, warm=False)
        return _child.run(function, arguments, silent, lambda: True, TIME_LIMIT, TIME_LIMIT)
    finally:
        _one_at_a_time.release()
