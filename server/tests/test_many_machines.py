"""An office whose drawings are made by two other machines: one is lost, and the network of the other is cut.

Each machine is a network of its own (a namespace of Linux), joined to that of the queue by a bridge.
"""

from __future__ import annotations

import fcntl
import os
import shutil
import signal
import socket
import sqlite3
import subprocess
import sys
import tempfile
import time
from collections import Counter
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import override_settings
from redis import Redis

from demo.building import write_observatory
from server.buildings.services import import_model
from server.projects.models import Project
from server.tests.committed_case import CommittedCase, copied

#: The network of the test, in a block that is kept for documentation (RFC 5737).
NETWORK = "198.51.100"
BRIDGE = "dunefoldb"
#: How long the network is cut, and how long anything is waited for; seconds.
CUT, PATIENCE = 10, 300


def ip(*arguments: str) -> None:
    subprocess.run(["ip", *arguments], check=True, capture_output=True)


def remove(*things: tuple[str, str]) -> None:
    """Remove networks and wires, where they are there."""
    for kind, name in things:
        subprocess.run(["ip", kind, "delete", name], capture_output=True, check=False)


@contextmanager
def networks_to_itself() -> Iterator[None]:
    """The networks of the machine that tests are run on are one test's at a time: another run waits."""
    with (Path(tempfile.gettempdir()) / "dunefold-networks.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        yield


def may_make_networks() -> bool:
    if shutil.which("ip") is None or shutil.which("redis-server") is None:
        return False
    wires = ("dunefoldt", "type", "veth", "peer", "name", "dunefoldt-e")
    try:
        ip("netns", "add", "dunefold-try")
        ip("link", "add", "dunefoldy", "type", "bridge")
        ip("link", "add", *wires, "netns", "dunefold-try")
    except subprocess.CalledProcessError:
        return False
    finally:
        remove(("link", "dunefoldy"), ("netns", "dunefold-try"))
    return True


class Machine:
    """Another machine: a network of its own, a data folder, and a worker in it."""

    def __init__(self, number: int, folder: Path, environment: dict[str, str]) -> None:
        self._name, self._wire = f"dunefold-{number}", f"dunefold{number}"
        self._number, self._folder = number, folder / f"machine-{number}"
        self._environment = {**environment, "DUNEFOLD_DATA": str(self._folder)}
        self._process: subprocess.Popen[bytes] | None = None

    def join(self, bridge: str) -> None:
        end = f"{self._wire}-e"
        ip("netns", "add", self._name)
        ip("link", "add", self._wire, "type", "veth", "peer", "name", end)
        ip("link", "set", end, "netns", self._name)
        ip("link", "set", self._wire, "master", bridge, "up")
        ip("-n", self._name, "addr", "add", f"{NETWORK}.{10 + self._number}/24", "dev", end)
        ip("-n", self._name, "link", "set", end, "up")

    def start(self) -> None:
        command = ["ip", "netns", "exec", self._name, sys.executable, "manage.py", "work_for_others"]
        self._process = subprocess.Popen(
            command, cwd=settings.ROOT, env=self._environment, start_new_session=True
        )

    def is_at_work(self, queue: Redis) -> bool:
        """Whether it has a step under way just now."""
        said: list[Any] = [queue.hgetall(key) for key in queue.smembers("rq:workers:dunefold-long")]
        return any(
            each.get(b"state") == b"busy" and int(each[b"pid"]) == self._pid
            for each in said
            if b"pid" in each
        )

    def signal(self, number: int) -> None:
        os.killpg(self._pid, number)

    def wire(self, state: str) -> None:
        ip("link", "set", self._wire, state)

    def leave(self) -> None:
        if self._process is not None:
            self.signal(signal.SIGKILL)
            self._process.wait()
        # Connections that were cut keep the network for a while; the next test wants a wire of the same name.
        remove(("link", self._wire), ("netns", self._name))

    @property
    def _pid(self) -> int:
        assert self._process is not None
        return self._process.pid


class ManyMachinesTests(CommittedCase):
    def setUp(self) -> None:
        self.enterContext(networks_to_itself())
        if not may_make_networks():
            self.skipTest("needs ip, redis-server, and the right to make networks")
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        # A run that was killed has left its own.
        remove(("link", BRIDGE))
        ip("link", "add", BRIDGE, "type", "bridge")
        self.addCleanup(ip, "link", "delete", BRIDGE)
        ip("addr", "add", f"{NETWORK}.1/24", "dev", BRIDGE)
        ip("link", "set", BRIDGE, "up")
        port = self.start_queue()
        self.office = self.folder / "office"
        self.environment = {
            **os.environ,
            "DUNEFOLD_QUEUE": f"redis://{NETWORK}.1:{port}/0",
            "DUNEFOLD_WORK_FILES": str(self.folder / "on-their-way"),
            "DUNEFOLD_DATA": str(self.office),
            "DJANGO_SETTINGS_MODULE": "server.config.settings",
        }
        self.environment.pop("DUNEFOLD_DATABASE", None)
        self.machines = [Machine(number, self.folder, self.environment) for number in (1, 2)]
        for machine in self.machines:
            machine.leave()
            self.addCleanup(machine.leave)
            machine.join(BRIDGE)

    def start_queue(self) -> int:
        with socket.socket() as probe:
            probe.bind((f"{NETWORK}.1", 0))
            port: int = probe.getsockname()[1]
        given = ["--bind", f"{NETWORK}.1", "--port", str(port), "--protected-mode", "no", "--save", ""]
        server = subprocess.Popen(["redis-server", *given], cwd=self.folder, stdout=subprocess.DEVNULL)
        self.addCleanup(server.wait)
        self.addCleanup(server.kill)
        self.queue = Redis(host=f"{NETWORK}.1", port=port)
        self.addCleanup(self.queue.close)
        self.until(lambda: server.poll() is None and self._answers())
        return port

    def _answers(self) -> bool:
        with closing(socket.socket()) as probe:
            address = self.queue.connection_pool.connection_kwargs
            return probe.connect_ex((address["host"], address["port"])) == 0

    def order(self) -> None:
        """The office's data: a building that is to be read and then drawn."""
        user = get_user_model().objects.create_user("ines")
        project = Project.objects.create(owner=user, name="Bird observatory")
        file = self.folder / "observatory.ifc"
        write_observatory(str(file))
        self.office.mkdir()
        with override_settings(DATA=self.office):
            import_model(project, SimpleUploadedFile(file.name, file.read_bytes()), user)
        with closing(copied()) as made, closing(sqlite3.connect(self.database)) as database:
            made.backup(database)

    def start_office(self) -> Path:
        """Two workers that follow what the machines do, and where they write what they have to say."""
        said = self.folder / "office.log"
        with said.open("wb") as stream:
            for _ in self.machines:
                worker = subprocess.Popen(
                    [sys.executable, "manage.py", "work", "--beside"],
                    cwd=settings.ROOT,
                    env=self.environment,
                    stdout=stream,
                    stderr=stream,
                )
                self.addCleanup(worker.wait)
                self.addCleanup(worker.terminate)
        return said

    def until(self, holds: Callable[[], bool], every: float = 0.05) -> None:
        end = time.monotonic() + PATIENCE
        while not holds():
            if time.monotonic() > end:
                self.fail(f"Waited in vain.\n{self.as_it_stands()}")
            time.sleep(every)

    def as_it_stands(self) -> str:
        """What is under way where, for whoever reads of a failure."""
        said = self.folder / "office.log"
        at_work = [each.is_at_work(self.queue) for each in self.machines]
        jobs = self.asked("SELECT kind, state, message FROM jobs_job") if said.exists() else []
        return f"Machines at work: {at_work}\n{jobs}\n{said.read_text() if said.exists() else ''}"

    @property
    def database(self) -> Path:
        return self.office / "dunefold.sqlite3"

    def asked(self, question: str) -> list[tuple[Any, ...]]:
        with closing(sqlite3.connect(self.database, timeout=20)) as database:
            return database.execute(question).fetchall()

    def states(self) -> Counter[str]:
        return Counter(state for (state,) in self.asked("SELECT state FROM jobs_job"))

    def stopped_at_work(self, machine: Machine) -> bool:
        """Whether a machine stands still in the middle of a step; it goes on where it does not."""
        if not machine.is_at_work(self.queue):
            return False
        machine.signal(signal.SIGSTOP)
        time.sleep(0.2)
        if machine.is_at_work(self.queue):
            return True
        machine.signal(signal.SIGCONT)
        return False

    def test_each_drawing_is_made_though_a_machine_is_lost_and_the_network_is_cut(self) -> None:
        first, second = self.machines
        self.order()
        for machine in self.machines:
            machine.start()
        said = self.start_office()
        self.until(lambda: self.states()["waiting"] > 5)

        self.until(lambda: self.stopped_at_work(first), every=0.01)
        first.signal(signal.SIGKILL)
        first.start()

        self.until(lambda: second.is_at_work(self.queue), every=0.01)
        second.wire("down")
        time.sleep(CUT)
        second.wire("up")

        self.until(lambda: not self.states().keys() & {"waiting", "running"}, every=0.5)
        jobs = self.states()
        self.assertEqual(jobs.keys(), {"done"}, said.read_text())
        # What the lost machine was at was ordered once more; what went on without a network was not.
        self.assertEqual(said.read_text().count("is ordered again"), 1, said.read_text())
        # One drawing for each that was ordered, and every file is whole.
        self.assertEqual(self.asked("SELECT COUNT(*) FROM views_linework"), [(jobs["done"] - 1,)])
        command = [sys.executable, "manage.py", "check_data"]
        subprocess.run(command, cwd=settings.ROOT, env=self.environment, check=True, capture_output=True)
