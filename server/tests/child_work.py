"""Work for the child process in its tests. It runs without Django, and so knows nothing of it."""

import os
import tempfile
import time
from pathlib import Path

from drafting.errors import DraftingError


def greet(name, progress):
    progress("Greeting", 0.5)
    return f"Good morning, {name}"


def unpack(progress):
    with tempfile.TemporaryFile() as stream:
        return stream.write(b"x")


def unpack_and_stall(progress):
    """Unpack something, tell where, and never end."""
    folder = tempfile.mkdtemp()
    (Path(folder) / "unpacked").write_bytes(b"x")
    progress(folder, 0.5)
    time.sleep(60)


def crash(progress):
    os._exit(11)


def stall(progress):
    time.sleep(60)


def hoard(progress):
    return len(bytearray(64 << 30))


def refuse(progress):
    raise DraftingError("No such gull.")


def relations(progress):
    """The numbers of this process and of the one that it is a copy of."""
    return os.getpid(), os.getppid()
