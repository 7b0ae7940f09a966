"""The web server, and where wanted its workers, as processes of their own while something is measured."""

from __future__ import annotations

import contextlib
import socket
import subprocess
import sys
import time
from collections.abc import Iterator


@contextlib.contextmanager
def serving(*, workers: bool = False) -> Iterator[str]:
    """The address of a web server that answers; it ends with the block."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    commands = [["-m", "server.config.web", f"--port={port}"]]
    if workers:
        commands += [["manage.py", "work"], ["manage.py", "work", "--short"]]
    parts = [subprocess.Popen([sys.executable, *command]) for command in commands]
    try:
        _wait_for(port)
        yield f"http://127.0.0.1:{port}"
    finally:
        for part in parts:
            part.terminate()
        for part in parts:
            part.wait()


def _wait_for(port: int) -> None:
    for _ in range(300):
        with contextlib.suppress(OSError), socket.create_connection(("127.0.0.1", port), 1):
            return
        time.sleep(0.1)
    raise SystemExit("The server did not come up.")
