"""`dunefold bench crash [CUTS]`: what was acknowledged is there after the power was cut.

Two editors and somebody who sends pictures write to a server whose data lie on a disk of its own: an image
that is mounted through a loop device. At random moments the server is stopped and the image copied as it is
then, with what the kernel has not written yet left out: that is what a disk holds when its power is cut. Each
copy is mounted, its journal played, its database opened, and all that had been acknowledged by then is looked
for, with the files that it names. Wants root, for mounting.
"""

from __future__ import annotations

import hashlib
import io
import os
import random
import shutil
import signal
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable, Iterator
from concurrent.futures import ProcessPoolExecutor
from contextlib import closing, contextmanager
from multiprocessing import get_context
from pathlib import Path
from typing import Any

import httpx
from PIL import Image

from bench.people import session_of
from e2e.launched import Launched

CUTS, SIZE_MB = 100, 192
#: Between two cuts; seconds.
APART = (0.15, 0.9)
TOKEN = "b" * 32


class Writers:
    """People who write without end, and what was acknowledged to them."""

    def __init__(self, address: str, session: str, project: str, sheets: list[str]) -> None:
        self.address, self.session, self.project = address, session, project
        #: By sheet, the last title that was acknowledged; and the pictures that were.
        self.titles: dict[str, int] = {}
        self.pictures: list[str] = []
        self.writes = 0
        #: What ended somebody's writing, in words: there is nobody then whose writes could be lost.
        self.faults: list[str] = []
        self.lock = threading.Lock()
        self._stopped = threading.Event()
        targets: list[Any] = [(self._edit, (sheet,)) for sheet in sheets] + [(self._send, ())]
        self._threads = [threading.Thread(target=self._write, args=each, daemon=True) for each in targets]
        for thread in self._threads:
            thread.start()

    def stop(self) -> None:
        self._stopped.set()
        for thread in self._threads:
            thread.join()

    def acknowledged(self) -> tuple[dict[str, int], list[str]]:
        """What has been acknowledged by now."""
        with self.lock:
            return dict(self.titles), list(self.pictures)

    def _write(self, write: Callable[..., None], given: tuple[str, ...]) -> None:
        try:
            write(*given)
        except Exception as error:
            self.faults.append(f"{write.__name__.strip('_')}: {type(error).__name__}: {error}")

    @contextmanager
    def _client(self) -> Iterator[httpx.Client]:
        cookies = {"sessionid": self.session, "csrftoken": TOKEN}
        with httpx.Client(
            base_url=self.address, timeout=60, cookies=cookies, headers={"X-CSRFToken": TOKEN}
        ) as client:
            yield client

    def _edit(self, sheet: str) -> None:
        with self._client() as client:
            version, count = 1, 0
            while not self._stopped.is_set():
                count += 1
                row = {"title": str(count)}
                step = {"rows": "sheets", "id": sheet, "version": version, "row": row}
                answer = client.post("/api/changes/", json={"what": "count", "steps": [step]})
                answer.raise_for_status()
                version = answer.json()["rows"][0]["version"]
                with self.lock:
                    self.titles[sheet] = count
                    self.writes += 1

    def _send(self) -> None:
        chance = random.Random(1)
        with self._client() as client:
            while not self._stopped.is_set():
                out = io.BytesIO()
                Image.frombytes("RGB", (16, 16), chance.randbytes(768)).save(out, "PNG")
                files = {"file": ("x.png", out.getvalue())}
                answer = client.post("/api/pictures/", data={"project": self.project}, files=files)
                answer.raise_for_status()
                with self.lock:
                    self.pictures.append(answer.json()["id"])
                    self.writes += 1


def fill() -> tuple[str, str, list[str]]:
    """A session, a project, and its sheets."""
    import django

    django.setup()  # nothing of the server can be imported before
    from django.contrib.auth import get_user_model

    from server.projects.models import Project
    from server.sheets.models import Sheet

    user = get_user_model().objects.create_user("writer", password="samphire-88")
    project = Project.objects.create(owner=user, name="Quay house")
    sheets = [Sheet.objects.create(project=project, number=f"A-0{k}", position=k) for k in (1, 2)]
    return session_of(user), str(project.pk), [str(sheet.pk) for sheet in sheets]


def lost_in(data: Path, titles: dict[str, int], pictures: list[str]) -> list[str]:
    """What was acknowledged and is not in some data, and what is wrong with them, in words."""
    wrong = []
    with closing(sqlite3.connect(data / "dunefold.sqlite3")) as made:
        if made.execute("PRAGMA integrity_check").fetchone() != ("ok",):
            return ["the database is damaged"]
        for sheet, count in titles.items():
            found = made.execute("SELECT title FROM sheets_sheet WHERE id = ?", [sheet.replace("-", "")])
            title = (found.fetchone() or ("",))[0]
            if not title or int(title) < count:
                wrong.append(f"a sheet says {title or 'nothing'}, and {count} was acknowledged")
        kept = dict(made.execute("SELECT id, file FROM sheets_picture").fetchall())
    missing = [picture for picture in pictures if picture.replace("-", "") not in kept]
    if missing:
        wrong.append(f"{len(missing)} acknowledged pictures are not there")
    for digest in kept.values():
        path = data / "files" / digest[:2] / digest
        if not path.is_file() or hashlib.sha256(path.read_bytes()).hexdigest() != digest:
            wrong.append(f"a row names the file {digest[:12]}…, which is not there or damaged")
    return wrong


@contextmanager
def mounted(image: Path, place: Path) -> Iterator[Path]:
    """The file system of an image, as long as the block lasts."""
    place.mkdir(exist_ok=True)
    subprocess.run(["mount", "-o", "loop", str(image), str(place)], check=True)
    try:
        yield place
    finally:
        subprocess.run(["umount", str(place)], check=True)


def cut(server: Launched, image: Path, copy: Path) -> None:
    """Copy an image as it is at one moment, all of its installation standing still."""
    processes = server.all_processes
    for process in processes:
        os.kill(process, signal.SIGSTOP)
    try:
        shutil.copyfile(image, copy)
    finally:
        for process in processes:
            os.kill(process, signal.SIGCONT)


def main() -> int:
    cuts = int(sys.argv[1]) if len(sys.argv) > 1 else CUTS
    if os.geteuid() != 0:
        print("dunefold: cutting the power of a disk wants root, for mounting its image.", file=sys.stderr)
        return 2
    # In memory, so that a copy takes a moment.
    with tempfile.TemporaryDirectory(dir="/dev/shm") as name:
        folder = Path(name)
        image, copy = folder / "disk", folder / "copy"
        with image.open("wb") as stream:
            stream.truncate(SIZE_MB * 1024 * 1024)
        subprocess.run(["mkfs.ext4", "-q", str(image)], check=True)
        with mounted(image, folder / "mounted") as disk:
            os.environ |= {
                "DJANGO_SETTINGS_MODULE": "server.config.settings",
                "DUNEFOLD_DATA": str(disk / "data"),
                "DUNEFOLD_DISK_RESERVE": "1000000",
            }
            subprocess.run([sys.executable, "manage.py", "migrate", "--verbosity", "0"], check=True)
            # In a process of its own, so that nothing here holds the disk.
            with ProcessPoolExecutor(1, get_context("spawn")) as apart:
                session, project, sheets = apart.submit(fill).result()
            subprocess.run(["sync"], check=True)
            chance, wrong, began = random.Random(2), [], time.monotonic()
            with Launched(disk / "data", {"DUNEFOLD_DISK_RESERVE": "1000000"}) as server:
                writers = Writers(server.address, session, project, sheets)
                for k in range(cuts):
                    time.sleep(chance.uniform(*APART))
                    titles, pictures = writers.acknowledged()
                    cut(server, image, copy)
                    with mounted(copy, folder / "looked-at") as seen:
                        found = lost_in(seen / "data", titles, pictures)
                    wrong += [f"cut {k + 1}: {words}" for words in found]
                writers.stop()
                server.check_parts()
            took = time.monotonic() - began
    print(f"{cuts} cuts within {took:.0f} s, during {writers.writes} acknowledged writes")
    for fault in writers.faults:
        print(f"somebody stopped writing, so this tells nothing: {fault}")
    print(f"{len(wrong)} things lost or damaged" + "".join(f"\n  {words}" for words in wrong[:20]))
    return 1 if wrong or writers.faults else 0


if __name__ == "__main__":
    sys.exit(main())
