"""A process that does heavy work for the worker and can be stopped: if it crashes or stalls, nobody else is
harmed."""

from __future__ import annotations

import atexit
import importlib
import multiprocessing
import os
import resource
import shutil
import signal
import tempfile
import threading
import time
import traceback
from collections.abc import Callable
from multiprocessing.connection import Connection
from pathlib import Path
from typing import Any

from drafting.errors import DraftingError
from drafting.progress import Progress
from server.common.beside import end_with_parent
from server.common.space import DISK_FULL, is_out_of_space

#: By how much a job steps back where others want the processor: whoever waits for an answer goes first.
COURTESY = 10
#: The module with all that heavy work is done with.
READY = "drafting.tasks.ready"
#: How often it is asked whether the work is still wanted; seconds.
POLL_INTERVAL = 0.1


class Cancelled(Exception):
    """The work was stopped because somebody asked for it."""


class ChildProcessFailed(Exception):
    """The work could not be finished; the message is a sentence for people, which a request is answered
    with."""


class ChildProcessLost(ChildProcessFailed):
    """The process crashed, or was killed, in the middle of the work."""


class UnexpectedError(Exception):
    """The work failed for a reason that nobody foresaw; the message is the child's traceback."""


class ChildProcess:
    """One process, started when first needed and again when it was lost. It runs one piece of work at a
    time, and ends with the process that started it.

    Args:
        memory_limit: bytes of address space.
        warm: whether it is to have the compiled kernels ready.
        folder: where it unpacks what it reads, in a folder of its own that goes with it.
    """

    def __init__(self, memory_limit: int, folder: Callable[[], Path], *, warm: bool = True) -> None:
        self._memory_limit, self._warm, self._folder = memory_limit, warm, folder
        self._unpacked = ""
        self._process: Any = None
        self._pipe: Any = None
        atexit.register(self.kill)

    def start(self) -> None:
        """Bring the process up."""
        if self._process is not None and self._process.is_alive():
            return
        # All that it needs is loaded once, in a process that each is a copy of: whatever takes the place of a
        # lost one is ready in a quarter of the time.
        context = multiprocessing.get_context("forkserver")
        if self._warm:
            context.set_forkserver_preload([READY])
        self._pipe, theirs = context.Pipe()
        self._tidy_up()
        self._unpacked = self._place()
        given = theirs, self._memory_limit, self._unpacked, self._warm
        self._process = context.Process(target=_serve, args=given, daemon=True)
        self._process.start()
        theirs.close()

    def run(
        self,
        function: str,
        arguments: tuple[Any, ...],
        progress: Progress,
        wanted: Callable[[], bool],
        time_limit: float,
        stall_limit: float,
    ) -> Any:
        """Run function(*arguments, progress=...) in the child.

        Args:
            function: as "module:name", so that this process need not load what only the child works with.
            wanted: asked now and then; when it says no the work is stopped.
            time_limit, stall_limit: seconds altogether, and without any sign of progress.

        Raises:
            DraftingError: the core refused the input.
            Cancelled: it was no longer wanted.
            ChildProcessLost: it crashed.
            ChildProcessFailed: it took too long or too much memory, or the disk is full.
            UnexpectedError: anything else.
        """
        self.start()
        begun = heard = time.monotonic()
        checked = 0.0
        try:
            self._pipe.send((function, arguments))
            while True:
                now = time.monotonic()
                if now - checked > POLL_INTERVAL:
                    checked = now
                    if not wanted():
                        self.kill()
                        raise Cancelled
                    if now - begun > time_limit or now - heard > stall_limit:
                        self.kill()
                        raise ChildProcessFailed(
                            "This took longer than is allowed here and was stopped. Use a smaller file."
                        )
                if self._pipe.poll(POLL_INTERVAL):
                    kind, *rest = self._pipe.recv()
                    heard = time.monotonic()
                    if kind == "progress":
                        progress(*rest)
                    elif kind == "done":
                        return rest[0]
                    elif kind == "refused":
                        raise DraftingError(rest[0])
                    elif kind == "memory":
                        self.kill()
                        raise ChildProcessFailed(
                            "This needs more memory than is allowed here. Use a smaller file."
                        )
                    elif kind == "disk":
                        raise ChildProcessFailed(DISK_FULL)
                    else:
                        raise UnexpectedError(rest[0])
        except (EOFError, BrokenPipeError, ConnectionResetError) as error:
            self.kill()
            raise ChildProcessLost(
                "What worked on this crashed. Try again; a file that brings it down again has to be exported "
                "anew, or in parts."
            ) from error

    def kill(self) -> None:
        """End the process at once."""
        if self._process is not None:
            self._process.kill()
            self._process.join()
            self._process = None
            self._pipe.close()
        self._tidy_up()

    def _place(self) -> str:
        try:
            return tempfile.mkdtemp(prefix="child-", dir=self._folder())
        except OSError:  # what is on a read-only disk is read all the same
            return tempfile.mkdtemp(prefix="dunefold-child-")

    def _tidy_up(self) -> None:
        """Put away what a process had unpacked that is no more."""
        if self._unpacked:
            shutil.rmtree(self._unpacked, ignore_errors=True)
            self._unpacked = ""


def _serve(pipe: Connection, memory_limit: int, unpacked: str, warm: bool) -> None:
    """In the child: wait for work, do it, report how it went."""
    tempfile.tempdir = unpacked
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # who started this process ends it
    threading.Thread(target=end_with_parent, daemon=True).start()
    # This process starts none. Where it might fork one, numba takes a semaphore of the system, which stays
    # when this one is killed.
    multiprocessing.set_start_method("spawn", force=True)
    os.nice(COURTESY)
    if warm:
        importlib.import_module(READY).warm()
    resource.setrlimit(resource.RLIMIT_AS, (memory_limit, memory_limit))
    while True:
        try:
            function, arguments = pipe.recv()
        except EOFError:
            return
        try:
            # Whoever tidies up may have taken it for old.
            Path(unpacked).mkdir(mode=0o700, parents=True, exist_ok=True)
            module, _, name = function.partition(":")
            work = getattr(importlib.import_module(module), name)
            made = work(*arguments, progress=lambda stage, share: pipe.send(("progress", stage, share)))
            pipe.send(("done", made))
        except DraftingError as error:
            pipe.send(("refused", str(error)))
        except MemoryError:
            pipe.send(("memory",))
        except Exception as error:
            if is_out_of_space(error):
                pipe.send(("disk",))
            else:
                pipe.send(("failed", traceback.format_exc()))
