"""What a machine does of the heavy work of others: one step of the core's tasks at a time, in a process with
limits. It needs the queue and the files on their way, and no database."""

from __future__ import annotations

import shutil
import time
import uuid
from functools import cache
from pathlib import Path
from typing import Any

import django_rq
from django.conf import settings
from django_tasks import TaskContext, task
from redis import RedisError

from drafting.errors import DraftingError
from server.common import storage
from server.common.machines import SHORT_STEPS, STEPS
from server.common.problems import logged
from server.jobs.child import Cancelled, ChildProcess, ChildProcessFailed, UnexpectedError
from server.jobs.machines import calls, files

#: How often a machine says how far it is, and that it is alive; seconds.
SAY_INTERVAL = 0.5
#: How long what it says is kept, by which one that is lost is known; and that a step is not wanted; seconds.
SAID_KEPT, UNWANTED_KEPT = 60, 3600
#: How often what was not used for long is put away, seconds.
TIDY_INTERVAL = 3600.0
_tidied = float("-inf")


def said_of(step: str) -> str:
    """Where a machine says how far a step is."""
    return f"dunefold:step:{step}"


def unwanted(step: str) -> str:
    """What is there once a step is not wanted any more."""
    return f"dunefold:unwanted:{step}"


@task(queue_name=SHORT_STEPS, backend=STEPS, takes_context=True)
def run_step(context: TaskContext, digest: str) -> dict[str, str]:
    """Make the call whose file has this hash. Its outcome is one of

    - done: with the hash of the answer's file
    - refused, stopped, cancelled: with a sentence for people
    - missing: with the hash of a file that was not there
    - failed: with a reference by which the log of this machine tells more
    """
    _tidy_up()
    folder = files.own_folder() / uuid.uuid4().hex
    folder.mkdir()
    try:
        return {"outcome": "done", "words": _made(_Reports(context.task_result.id), digest, folder)}
    except DraftingError as error:
        return {"outcome": "refused", "words": str(error)}
    except ChildProcessFailed as error:
        return {"outcome": "stopped", "words": str(error)}
    except Cancelled:
        return {"outcome": "cancelled", "words": ""}
    except files.Missing as error:
        return {"outcome": "missing", "words": str(error)}
    except Exception as error:
        said = str(error) if isinstance(error, UnexpectedError) else repr(error)
        return {"outcome": "failed", "words": f"{logged('step %s', digest)}\n{said}"}
    finally:
        shutil.rmtree(folder, ignore_errors=True)


def _made(reports: _Reports, digest: str, folder: Path) -> str:
    """Make a call, send what it made, and give the hash of the answer's file."""
    call = calls.Call.model_validate_json(files.fetch(digest).read_bytes())
    arguments, paths = calls.unpack(call, folder, files.fetch)
    value = the_child().run(
        call.function, arguments, reports.progress, reports.still_wanted, call.time_limit, call.stall_limit
    )
    answer, made = calls.pack_result(call, value, paths)
    for each, path in made.items():
        files.send(path, each)
    return files.send_text(answer.model_dump_json())


def _tidy_up() -> None:
    global _tidied
    if time.monotonic() - _tidied > TIDY_INTERVAL:
        _tidied = time.monotonic()
        files.prune_own()


@cache
def the_child() -> ChildProcess:
    """The one process for heavy work that this one holds."""
    return ChildProcess(settings.JOB_MEMORY_LIMIT, storage.temporary_folder)


class _Reports:
    """How far a step is, told through the queue now and then."""

    def __init__(self, step: str) -> None:
        self._step, self._said = step, 0.0
        self._queue: Any = django_rq.get_connection(SHORT_STEPS)
        self._stage, self._share, self._count = "", 0.0, 0
        self._wanted = True
        self._say()

    def progress(self, stage: str, share: float) -> None:
        self._stage, self._share = stage, share

    def still_wanted(self) -> bool:
        if time.monotonic() - self._said > SAY_INTERVAL:
            self._say()
        return self._wanted

    def _say(self) -> None:
        self._said = time.monotonic()
        self._count += 1
        said = {"stage": self._stage, "share": self._share, "count": self._count}
        try:
            with self._queue.pipeline(transaction=False) as pipeline:
                pipeline.hset(said_of(self._step), mapping=said)
                pipeline.expire(said_of(self._step), SAID_KEPT)
                pipeline.exists(unwanted(self._step))
                self._wanted = not pipeline.execute()[-1]
        except RedisError:
            # The network is gone for a while: the work goes on, and what it comes to is told afterwards.
            pass
