"""An installation as people start it, `./dunefold serve`, and somebody who uses it from outside."""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Callable, Iterator, Mapping, Sequence
from pathlib import Path
from types import TracebackType
from typing import Any, Self

import httpx

ROOT = Path(__file__).resolve().parents[1]
#: How long the installation may take to answer at first, anything else that is waited for, and to end;
#: seconds.
COMING_UP, PATIENCE, ENDING = 120.0, 240.0, 30.0
#: How often it is looked whether something that is waited for has come; seconds.
POLL_INTERVAL = 0.1


def free_port() -> int:
    """A port of this machine that nobody listens at."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port: int = probe.getsockname()[1]
        return port


def eventually(holds: Callable[[], Any], what: str, patience: float = PATIENCE) -> Any:
    """What `holds` gives once it gives anything.

    Raises:
        AssertionError: it did not within the patience that there is.
    """
    end = time.monotonic() + patience
    while time.monotonic() < end:
        found = holds()
        if found:
            return found
        time.sleep(POLL_INTERVAL)
    raise AssertionError(f"Waited {patience:g} s in vain for {what}.")


class Launcher:
    """`./dunefold` with some command, as long as the block lasts.

    Args:
        data: the data folder; made where it is not there.
        environment: settings beside those of this process.
    """

    def __init__(
        self, data: str | Path, environment: Mapping[str, str] | None = None, command: Sequence[str] = ()
    ) -> None:
        self.data, self._command = Path(data), command
        given = {name: value for name, value in os.environ.items() if not name.startswith("DUNEFOLD_")}
        self.environment = {**given, "DUNEFOLD_DATA": str(data), **(environment or {})}
        self._launcher: subprocess.Popen[bytes] | None = None

    def __enter__(self) -> Self:
        self.data.mkdir(parents=True, exist_ok=True)
        command = [sys.executable, str(ROOT / "dunefold"), *self._command]
        with (self.data / "launcher.log").open("ab") as said:
            self._launcher = subprocess.Popen(
                command, env=self.environment, stdout=said, stderr=said, start_new_session=True
            )
        try:
            eventually(self.is_ready, "the launcher to be ready", COMING_UP)
        except BaseException:
            self.end()
            raise
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self.end()

    def is_ready(self) -> bool:
        """Whether it says that one can begin."""
        if self._launcher is None or self._launcher.poll() is not None:
            raise AssertionError(f"The launcher ended by itself. It said: {self.said}")
        return "Ctrl-C ends it." in self.said

    def end(self) -> None:
        """End it as Ctrl-C does."""
        launcher, self._launcher = self._launcher, None
        if launcher is None:
            return
        launcher.send_signal(signal.SIGINT)
        try:
            launcher.wait(ENDING)
        except subprocess.TimeoutExpired:
            launcher.kill()
            launcher.wait()

    @property
    def said(self) -> str:
        """What the launcher and its parts have said until now."""
        return (self.data / "launcher.log").read_text(errors="replace")

    @property
    def parts(self) -> dict[str, int]:
        """The numbers of the processes that the launcher has started, by the names of their parts."""
        assert self._launcher is not None
        return {_variable(pid, "DUNEFOLD_PART"): pid for pid in children(self._launcher.pid)}

    def processes(self, part: str) -> set[int]:
        """The numbers of all processes that a part has started, but those of Python itself: which serve what
        others start, or note what is to be put away."""
        return {pid for pid in descendants(self.parts[part]) if "resource_tracker" not in _command(pid)}

    @property
    def all_processes(self) -> list[int]:
        """The numbers of all processes of the installation, its launcher's first."""
        assert self._launcher is not None
        return [self._launcher.pid, *descendants(self._launcher.pid)]

    def check_parts(self) -> None:
        """See that no part has ended by itself until now.

        Raises:
            AssertionError: one has, and was started again.
        """
        broken = [line for line in self.said.splitlines() if "ended by itself" in line]
        if broken:
            raise AssertionError("\n".join(broken))


class Launched(Launcher):
    """What `./dunefold serve` starts, on a port of its own."""

    def __init__(self, data: str | Path, environment: Mapping[str, str] | None = None) -> None:
        port = free_port()
        super().__init__(data, environment, ["serve", "--port", str(port)])
        self.address = f"http://127.0.0.1:{port}"

    def is_ready(self) -> bool:
        """Whether it answers, and has all that it needs to."""
        return super().is_ready() and self.answers()

    def answers(self) -> bool:
        """Whether it says that it is well."""
        try:
            return httpx.get(f"{self.address}/health/ready").status_code == httpx.codes.OK
        except httpx.TransportError:
            return False

    def manage(self, *arguments: str, **environment: str) -> None:
        """Run one of Django's commands on its data."""
        given = {**self.environment, **environment}
        command = [sys.executable, str(ROOT / "manage.py"), *arguments]
        subprocess.run(command, env=given, check=True, capture_output=True)

    def add_person(self, name: str, password: str) -> Person:
        """An account that administers the installation, as the README has it made, signed in."""
        given = {"DJANGO_SUPERUSER_PASSWORD": password}
        mail = f"--email={name}@office.example"
        self.manage("createsuperuser", "--noinput", f"--username={name}", mail, **given)
        return Person(self.address, name, password)


def children(pid: int) -> Iterator[int]:
    """The numbers of the processes that a process has started and that run."""
    for thread in Path(f"/proc/{pid}/task").glob("*/children"):
        try:
            yield from map(int, thread.read_text().split())
        except OSError:  # it has ended meanwhile
            continue


def descendants(pid: int) -> Iterator[int]:
    """Those, and all that they have started."""
    for child in children(pid):
        yield child
        yield from descendants(child)


def _command(pid: int) -> str:
    try:
        return Path(f"/proc/{pid}/cmdline").read_text().replace("\0", " ")
    except OSError:
        return ""


def _variable(pid: int, name: str) -> str:
    try:
        given = Path(f"/proc/{pid}/environ").read_text().split("\0")
    except OSError:
        return ""
    return dict(each.partition("=")[::2] for each in given).get(name, "")


class Person(httpx.Client):
    """Somebody who is signed in, and asks as the interface does."""

    def __init__(self, address: str, name: str, password: str) -> None:
        super().__init__(base_url=address, timeout=PATIENCE, event_hooks={"request": [self._with_token]})
        self.get("/")
        self.post("/api/session/", json={"username": name, "password": password}).raise_for_status()

    def _with_token(self, request: httpx.Request) -> None:
        request.headers["X-CSRFToken"] = self.cookies.get("csrftoken", "")

    def made(self, path: str, given: Any = None, **more: Any) -> Any:
        """What is answered to something that is made."""
        return self._answered(
            self.post(f"/api/{path}", **({"json": given} if given is not None else {}), **more)
        )

    def changed(self, path: str, given: Any) -> Any:
        """A row as it is after a change."""
        return self._answered(self.patch(f"/api/{path}", json=given))

    def list(self, path: str, **query: str) -> Any:
        """What is answered to a question."""
        return self._answered(self.get(f"/api/{path}", params=query))

    def file(self, path: str, **query: str) -> bytes:
        """A file that is fetched."""
        answer = self.get(f"/api/{path}", params=query)
        if not answer.is_success:
            raise AssertionError(f"{answer.status_code} for {answer.url}: {answer.text[:500]}")
        return answer.content

    def done(self, path: str, state: Callable[[Any], str] = lambda row: row["job"]["state"]) -> Any:
        """A row once the work for it is done.

        Raises:
            AssertionError: it has failed.
        """

        def over() -> Any:
            row = self.list(path)
            if state(row) in ("failed", "cancelled"):
                raise AssertionError(f"{path}: {row}")
            return row if state(row) == "done" else None

        return eventually(over, f"{path} to be done")

    def _answered(self, answer: httpx.Response) -> Any:
        if not answer.is_success:
            asked = f"{answer.request.method} {answer.url}"
            raise AssertionError(f"{answer.status_code} for {asked}: {answer.text[:500]}")
        return answer.json()
