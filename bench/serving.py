"""The web server, and where wanted its workers, as processes of their own while something is measured."""

from __future__ import annotations

import contextlib
import socket
import subprocess
import sys
import time
from types import TracebackType
from typing import Self


class Serving:
    """A web server that answers at `address`, and its `parts` as processes; they end with the block."""

    def __init__(self, *, workers: bool = False) -> None:
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self._port = probe.getsockname()[1]
        self.address = f"http://127.0.0.1:{self._port}"
        self.parts: list[subprocess.Popen[bytes]] = []
        self._commands = [["-m", "server.config.web", f"--port={self._port}"]]
        if workers:
            self._commands += [["manage.py", "work"], ["manage.py", "work", "--short"]]

    def __enter__(self) -> Self:
        self.parts = [subprocess.Popen([sys.executable, *command]) for command in self._commands]
        try:
            self._wait()
        except BaseException:
            self._end()
            raise
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self._end()

    def _wait(self) -> None:
        for _ in range(300):
            with contextlib.suppress(OSError), socket.create_connection(("127.0.0.1", self._port), 1):
                return
            time.sleep(0.1)
        raise SystemExit("The server did not come up.")

    def _end(self) -> None:
        for part in self.parts:
            part.terminate()
        for part in self.parts:
            part.wait()
