"""Having a step done by another machine: it is ordered, followed, and ordered again where it got lost."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable
from typing import Any

import django_rq
from django.core.cache import cache
from django_tasks import TaskResult, TaskResultStatus
from django_tasks.exceptions import TaskResultDoesNotExist
from redis import Redis, RedisError
from rq import Worker
from rq.worker import BaseWorker

from drafting.errors import DraftingError
from drafting.progress import Progress
from server.common import storage
from server.common.machines import LONG_STEPS, SHORT_STEPS
from server.jobs.child import POLL_INTERVAL, Cancelled, ChildProcessFailed, UnexpectedError
from server.jobs.machines import calls, files, steps

log = logging.getLogger(__name__)

#: A machine that has said nothing of a step for so long is lost with it; seconds.
SILENCE = 30.0
#: How often the place of a step in the queue is looked up; seconds.
PLACE_INTERVAL = 5.0
#: How long it is known whether there is a machine; requests ask for it. Seconds.
MACHINES_KNOWN = 5
#: How often a step is ordered at most: one on which machines are lost one after the other is given up.
MAX_ORDERS = 3
_LOST = "The machines that worked on this were lost one after the other. Try again, or use a smaller file."


def run(
    function: str,
    arguments: tuple[Any, ...],
    progress: Progress,
    wanted: Callable[[], bool],
    time_limit: float,
    stall_limit: float,
    *,
    long: bool = False,
) -> Any:
    """Run function(*arguments, progress=...) on another machine; see ChildProcess.run, which does so here,
    for arguments and exceptions. The limits are of the work itself, not of what it waits for before.

    Args:
        long: whether short steps of others go first.
    """
    packed = calls.pack(function, arguments, time_limit, stall_limit)
    again = False
    for _ in range(MAX_ORDERS):
        for digest, path in packed.files.items():
            files.send(path, digest, again=again)
        call = files.send_text(packed.call.model_dump_json(), again=again)
        order = _Order(call, LONG_STEPS if long else SHORT_STEPS)
        outcome = order.followed(progress, wanted)
        words = outcome["words"]
        match outcome["outcome"]:
            case "done":
                return _taken(words, packed)
            case "refused":
                raise DraftingError(words)
            case "stopped":
                raise ChildProcessFailed(words)
            case "cancelled":
                raise Cancelled
            case "failed":
                raise UnexpectedError(words)
            case "missing":
                again = True
        log.warning("step %s is ordered again: %s %s", function, outcome["outcome"], words)
    raise ChildProcessFailed(_LOST)


def any_machine() -> bool:
    """Whether there is a machine that listens to the queue, or is at a step, as it was a few seconds ago."""
    return bool(cache.get_or_set("any machine for steps", _any_machine, MACHINES_KNOWN))


def _any_machine() -> bool:
    queue = django_rq.get_queue(SHORT_STEPS)
    try:
        return any(map(_is_alive, Worker.all(queue=queue)))
    except RedisError:
        return False


def _is_alive(worker: BaseWorker) -> bool:
    step = worker.get_current_job_id()
    # One that waits is forgotten soon after its end (IDLE_KEPT).
    return step is None or bool(worker.connection.exists(steps.said_of(step)))


def _taken(digest: str, packed: calls.Packed) -> Any:
    made = storage.temporary_path()
    try:
        files.fetch_to(digest, made)
        return calls.unpack_result(
            calls.Result.model_validate_json(made.read_bytes()), packed.paths, files.fetch_to
        )
    finally:
        made.unlink(missing_ok=True)


class _Order:
    """A step in the queue, from its order to its outcome."""

    def __init__(self, call: str, queue: str) -> None:
        self._call, self._name = call, queue
        self._queue: Redis = django_rq.get_connection(queue)
        self._result: TaskResult[dict[str, str]] | None = None
        self._heard = self._looked = time.monotonic()
        self._count = b""

    def followed(self, progress: Progress, wanted: Callable[[], bool]) -> dict[str, str]:
        """Its outcome (see steps.run_step), or that it is lost. While the queue cannot be reached, what was
        ordered may go on, and is told of afterwards.

        Raises:
            Cancelled: it is not wanted any more.
        """
        while wanted():
            try:
                outcome = self._asked(progress)
            except RedisError:
                outcome, self._heard = None, time.monotonic()
            if outcome is not None:
                return outcome
            time.sleep(POLL_INTERVAL)
        self._give_up()
        raise Cancelled

    def _asked(self, progress: Progress) -> dict[str, str] | None:
        """The outcome, where there is one by now."""
        if self._result is None:
            self._result = steps.run_step.using(queue_name=self._name).enqueue(self._call)
        try:
            self._result.refresh()
        except TaskResultDoesNotExist:
            return {"outcome": "lost", "words": "the queue has forgotten it"}
        if self._result.status == TaskResultStatus.SUCCESSFUL:
            return self._result.return_value
        if self._result.status == TaskResultStatus.FAILED or self._is_lost(self._result, progress):
            self._give_up()
            return {"outcome": "lost", "words": ""}
        return None

    def _is_lost(self, result: TaskResult[dict[str, str]], progress: Progress) -> bool:
        now = time.monotonic()
        if result.status == TaskResultStatus.RUNNING:
            said: Any = self._queue.hgetall(steps.said_of(result.id))
            if said and said[b"count"] != self._count:
                self._heard, self._count = now, said[b"count"]
                if said[b"stage"]:
                    progress(said[b"stage"].decode(), float(said[b"share"]))
        elif now - self._looked > PLACE_INTERVAL:
            self._looked = now
            # One that waits has a place; a machine may be lost just when it has taken it.
            if django_rq.get_queue(self._name).get_job_position(result.id) is not None:
                self._heard = now
        return now - self._heard > SILENCE

    def _give_up(self) -> None:
        if self._result is not None:
            try:
                self._queue.set(steps.unwanted(self._result.id), 1, ex=steps.UNWANTED_KEPT)
            except RedisError:
                log.warning("step %s could not be told that it is not wanted any more", self._result.id)
