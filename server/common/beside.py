"""Processes beside the web process, each with the application set up: what takes long to work out leaves its
threads to others."""

from __future__ import annotations

import gc
import multiprocessing
import os
import signal
import threading
import time
from collections.abc import Callable
from concurrent.futures import BrokenExecutor, ProcessPoolExecutor
from multiprocessing.connection import wait
from typing import ParamSpec, TypeVar

import django
from django.db import connection
from prometheus_client import Counter

P = ParamSpec("P")
R = TypeVar("R")
#: As many at most; each takes about 130 MB.
MAX_PROCESSES = 2
#: How often it is looked whether the launcher is there, seconds.
LOOK_EVERY = 1.0

#: Told among the figures of the installation: where nothing is worked out beside the web, it is slow for all.
_WORKED_OUT = Counter("dunefold_worked_out", "what was worked out, by the process", ["process"])

_lock = threading.Lock()
_pool: ProcessPoolExecutor | None = None


def start() -> None:
    """Have processes beside this one from now on; until then everything is worked out in this one."""
    global _pool
    with _lock:
        number = min(os.cpu_count() or 1, MAX_PROCESSES)
        context = multiprocessing.get_context("spawn")
        database = str(connection.settings_dict["NAME"])
        _pool = ProcessPoolExecutor(number, context, initializer=_set_up, initargs=(database,))
        for _ in range(number):
            # They come up before anybody waits for them.
            _pool.submit(os.getpid)


def stop() -> None:
    """End those that there are."""
    global _pool
    with _lock:
        pool, _pool = _pool, None
    if pool:
        pool.shutdown(cancel_futures=True)


def worked_out(work: Callable[P, R], *given: P.args, **named: P.kwargs) -> R:
    """What a function of a module gives, worked out beside this process; in it where that cannot be."""
    pool = _pool
    if pool is not None:
        try:
            made = pool.submit(work, *given, **named).result()
        except BrokenExecutor:
            # One was killed, and with it all: others take their place.
            if pool is _pool:
                start()
        else:
            _WORKED_OUT.labels("beside").inc()
            return made
    _WORKED_OUT.labels("web").inc()
    return work(*given, **named)


def end_with_parent() -> None:
    """Whatever this process is at, it ends when the one that started it has."""
    parent = multiprocessing.parent_process()
    if parent is not None:
        wait([parent.sentinel])
        os._exit(1)


def end_with_launcher() -> None:
    """Where a launcher has started this process (`DUNEFOLD_LAUNCHER`), end as it is asked to when that has
    gone without a word. Only the main function of such a process calls this: those that it starts have
    another parent, and would end at once."""
    launcher = os.environ.pop("DUNEFOLD_LAUNCHER", "")
    if launcher:
        threading.Thread(target=_watch_launcher, args=(int(launcher),), daemon=True).start()


def _watch_launcher(launcher: int) -> None:
    while os.getppid() == launcher:
        time.sleep(LOOK_EVERY)
    os.kill(os.getpid(), signal.SIGTERM)


def _set_up(database: str) -> None:
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # who started this process ends it
    threading.Thread(target=end_with_parent, daemon=True).start()
    django.setup(set_prefix=False)
    # That of the tests, where it is they that have started this.
    connection.settings_dict["NAME"] = database
    freeze_what_is_there()


def freeze_what_is_there() -> None:
    """Have what this process has until now, which stays, no more looked through for what can be forgotten."""
    gc.collect()
    gc.freeze()
