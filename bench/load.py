"""`dunefold bench load [PEOPLE] [SECONDS]`: many people on one project, who read, edit and plot, as the
interface does for them; how long they wait.

Each person is told of changes as they happen, opens a sheet now and then, moves a viewport every few seconds,
and plots a sheet once in a while. Server, workers and people share this machine.
"""

from __future__ import annotations

import asyncio
import gzip
import json
import os
import random
import subprocess
import sys
import tempfile
import time
from collections import defaultdict
from dataclasses import dataclass
from pathlib import Path
from statistics import quantiles
from typing import Any

import aiohttp
import uvloop

from bench.people import session_of
from e2e.launched import Launched

PEOPLE, SECONDS = 50, 120
#: Between two things that somebody does; seconds.
THINKING = (2.0, 6.0)
#: As many things a browser asks of a server at once.
AT_ONCE = 6
#: Within so long all have come; seconds.
COMING = 30.0
#: Of what is done: opening a sheet, moving a viewport, and the rest plots one.
SHARES = {"open": 0.5, "edit": 0.48}
#: What is asked for at the 95th percentile; milliseconds.
WANTED = {"read": 300, "write": 500}
#: What the Sheets station asks for when it is entered: kinds of rows in one answer, and lists of their own.
KINDS = (
    "sheets", "viewports", "views", "annotations", "touch_ups", "templates", "registers", "pen_tables",
    "plot_settings", "waivers", "comments", "scans",
)  # fmt: skip
LISTS = ("jobs", "checks", "ladder", "model-versions", "sheets/number-warnings")


@dataclass(frozen=True)
class Response:
    status: int
    packed: bool
    body: bytes

    @property
    def json(self) -> Any:
        return json.loads(gzip.decompress(self.body) if self.packed else self.body)


class Waits:
    """How long people waited, by what for, and what went wrong."""

    def __init__(self) -> None:
        self.took: dict[str, list[float]] = defaultdict(list)
        self.faults: list[str] = []

    async def ask(self, kind: str, asked: Any) -> Response | None:
        began = time.monotonic()
        try:
            async with asked as response:
                body = await response.read()
        except (aiohttp.ClientError, TimeoutError) as error:
            self.faults.append(f"{type(error).__name__}")
            return None
        self.took[kind].append(1000 * (time.monotonic() - began))
        # Who was overtaken by somebody else is told so, and does it again.
        if response.status >= 400 and response.status != 409:
            self.faults.append(f"{response.status} {response.url.path}")
            return None
        return Response(response.status, response.headers.get("Content-Encoding") == "gzip", body)


class Person:
    def __init__(self, number: int, address: str, session: str, project: str, waits: Waits) -> None:
        self.tab = f"person-{number}"
        self.client = aiohttp.ClientSession(
            address,
            headers={
                "Cookie": f"sessionid={session}; csrftoken={'b' * 32}",
                "X-CSRFToken": "b" * 32,
                "X-Dunefold-Tab": self.tab,
                "Accept-Encoding": "gzip",
            },
            connector=aiohttp.TCPConnector(limit=AT_ONCE),
            timeout=aiohttp.ClientTimeout(60),
            # Pages unpack what they are sent on machines of their own.
            auto_decompress=False,
        )
        self.project, self.waits = project, waits
        self.random = random.Random(number)
        self.viewports: dict[str, dict[str, Any]] = {}
        self.sheets: list[str] = []
        self.open = ""

    async def get(self, path: str) -> Response | None:
        return await self.waits.ask("read", self.client.get(f"/api/{path}"))

    async def enter(self) -> None:
        kinds = "".join(f"&kinds={kind}" for kind in KINDS)
        rows, *_ = await asyncio.gather(
            self.get(f"rows/?project={self.project}{kinds}"),
            *(self.get(f"{name}/?project={self.project}") for name in LISTS),
        )
        if rows is None:
            return
        told = rows.json
        self.viewports = {row["id"]: row for row in told["viewports"]}
        self.sheets = [row["id"] for row in told["sheets"]]
        await self.look()

    async def look(self) -> None:
        if not self.sheets:
            await self.enter()
            return
        self.open = self.random.choice(self.sheets)
        await self.get(f"sheets/{self.open}/display/")

    async def edit(self) -> None:
        on = [row for row in self.viewports.values() if row["sheet"] == self.open]
        if not on:
            return
        row = self.random.choice(on)
        step = {
            "rows": "viewports",
            "id": row["id"],
            "version": row["version"],
            "row": {"x": row["x"] + self.random.choice([-0.5, 0.5])},
        }
        call = self.client.post("/api/changes/", json={"what": "move", "steps": [step]})
        answer = await self.waits.ask("write", call)
        if answer is None:
            return
        body = answer.json
        now = body["rows"][0] if answer.status == 200 else body["current"]["row"]
        self.viewports[row["id"]] = now
        await self.get(f"sheets/{self.open}/display/")

    async def plot(self) -> None:
        body = {"project": self.project, "sheets": [self.open], "settings": None, "form": "pdf"}
        answer = await self.waits.ask("write", self.client.post("/api/plots/", json=body))
        while answer is not None and answer.json["job"]["state"] in ("waiting", "running"):
            await asyncio.sleep(1)
            answer = await self.get(f"plots/{answer.json['job']['id']}/")

    async def listen(self) -> None:
        path = f"/api/events/?project={self.project}&tab={self.tab}"
        while True:
            try:
                async with self.client.get(path, timeout=aiohttp.ClientTimeout(None)) as told:
                    async for line in told.content:
                        if line.startswith(b"data: "):
                            await self.hear(json.loads(line[6:]))
            except aiohttp.ClientError as error:
                self.waits.faults.append(f"{type(error).__name__} while listening")
            await asyncio.sleep(2)

    async def hear(self, news: dict[str, Any]) -> None:
        redrawn = False
        for told in news.get("rows", ()):
            if told["topic"] == "viewports" and told["row"]:
                self.viewports[told["id"]] = told["row"]
                redrawn = redrawn or told["row"]["sheet"] == self.open
        if redrawn:
            await self.get(f"sheets/{self.open}/display/")

    async def work(self, until: float) -> None:
        await asyncio.sleep(self.random.uniform(0.0, COMING))
        await self.enter()
        listening = asyncio.create_task(self.listen())
        while time.monotonic() < until:
            await asyncio.sleep(self.random.uniform(*THINKING))
            chance = self.random.random()
            if chance < SHARES["open"]:
                await self.look()
            elif chance < SHARES["open"] + SHARES["edit"]:
                await self.edit()
            else:
                await self.plot()
        listening.cancel()
        await asyncio.gather(listening, return_exceptions=True)
        await self.client.close()


def fill(people: int) -> tuple[str, list[str]]:
    """The demo's project, and a session for each of many people who work in it."""
    import django

    django.setup()  # nothing of the server can be imported before
    from django.contrib.auth import get_user_model

    from server.projects.models import Project

    project = Project.objects.get()
    sessions = []
    for number in range(people):
        user = get_user_model().objects.create(username=f"person-{number}")
        user.set_unusable_password()
        user.save()
        project.members.add(user)
        sessions.append(session_of(user))
    return str(project.pk), sessions


async def work_together(address: str, project: str, sessions: list[str], seconds: float) -> Waits:
    waits = Waits()
    until = time.monotonic() + seconds
    people = [Person(k, address, session, project, waits) for k, session in enumerate(sessions)]
    await asyncio.gather(*(person.work(until) for person in people))
    return waits


def main() -> int:
    given = [int(word) for word in sys.argv[1:]]
    people, seconds = (*given, *(PEOPLE, SECONDS)[len(given) :])
    with tempfile.TemporaryDirectory() as name:
        os.environ |= {
            "DJANGO_SETTINGS_MODULE": "server.config.settings",
            "DUNEFOLD_DATA": str(Path(name) / "data"),
            "DJANGO_ALLOW_ASYNC_UNSAFE": "true",
        }
        subprocess.run([sys.executable, "manage.py", "migrate", "--verbosity", "0"], check=True)
        subprocess.run([sys.executable, "-m", "demo.load"], check=True, stdout=subprocess.DEVNULL)
        project, sessions = fill(people)
        with Launched(os.environ["DUNEFOLD_DATA"]) as server:
            waits = uvloop.run(work_together(server.address, project, sessions, seconds))
            server.check_parts()
    print(f"{people} people on one project for {seconds} s on {os.cpu_count()} cores")
    for kind, wanted in WANTED.items():
        took = waits.took[kind]
        p95 = quantiles(took, n=20)[-1]
        print(
            f"{kind:6s} {len(took):6d}   {p95:6.0f} ms at the 95th percentile, longest {max(took):.0f}   "
            f"(at most {wanted} is asked for)"
        )
    print(f"{len(waits.faults)} faults" + "".join(f"\n  {fault}" for fault in sorted(set(waits.faults))))
    return 1 if waits.faults else 0


if __name__ == "__main__":
    sys.exit(main())
