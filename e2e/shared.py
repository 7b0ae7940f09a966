"""What all browser tests of a run share: it takes long to come up, and each test leaves it as it found it."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import threading
import time
from functools import cache
from typing import Any

from django.conf import settings
from django.db import connection, connections
from django.test.testcases import LiveServerThread
from playwright.sync_api import Browser, Page, Playwright, ViewportSize, sync_playwright

from server.common import beside
from server.config.web import web_server
from server.events.hub import hub

CHROMIUM = os.environ.get("DUNEFOLD_BROWSER", "/usr/bin/chromium-headless-shell")
QUIET = [
    "--no-sandbox",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    # A page compiles and tidies up by itself, not beside itself: all processors are busy with tests anyway.
    "--js-flags=--single-threaded",
]
#: 3D without a graphics card: one is imitated, which makes all of the page slower.
SOFT_3D = ["--use-angle=swiftshader", "--enable-unsafe-swiftshader"]
#: Of the page, pixels; and what the browser is like that has it.
SIZE: ViewportSize = {"width": 1280, "height": 800}
LIKE: Any = {"viewport": SIZE, "accept_downloads": True, "reduced_motion": "reduce"}
#: How long a worker may take for its last task, seconds.
LAST_TASK = 150


class LiveWebServer(LiveServerThread):
    """The web server that people use, in a thread of the tests."""

    def run(self) -> None:
        try:
            listening = socket.socket()
            listening.bind((self.host, self.port))
            self.port = listening.getsockname()[1]
            # Of the processes beside it, one is enough for one browser.
            beside.MAX_PROCESSES = 1
            self._server = web_server()
            threading.Thread(target=self._tell_when_ready, daemon=True).start()
            self._server.run(sockets=[listening])
        except Exception as error:
            self.error = error
            self.is_ready.set()
        finally:
            connections.close_all()

    def _tell_when_ready(self) -> None:
        while not self._server.started:
            time.sleep(0.01)
        self.is_ready.set()

    def terminate(self) -> None:
        hub.end()
        self._server.should_exit = True
        self.join()


class Shared:
    """Web server, worker and browsers, each started when a test first needs it."""

    def __init__(self) -> None:
        self.server: Any = None
        self._worker: subprocess.Popen[bytes] | None = None
        self._playwright: Playwright | None = None
        self._browsers: dict[bool, Browser] = {}
        self._pages: dict[bool, Page] = {}

    def browser(self, *, in_3d: bool) -> Browser:
        if self._playwright is None:
            # The driver runs its own event loop in this thread; Django's ORM is used beside it, not within.
            os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"
            self._playwright = sync_playwright().start()
        if in_3d not in self._browsers:
            given = [*QUIET, *(SOFT_3D if in_3d else [])]
            self._browsers[in_3d] = self._playwright.chromium.launch(executable_path=CHROMIUM, args=given)
        return self._browsers[in_3d]

    def page(self, *, in_3d: bool) -> Page:
        """A page in somebody's browser, which has been here before: it knows nothing of them, but the
        application's scripts, and what it has made of them."""
        page = self._pages.get(in_3d)
        if page is None:
            page = self.browser(in_3d=in_3d).new_context(**LIKE).new_page()
        elif page.is_closed():
            page = page.context.new_page()
        self._pages[in_3d] = page
        return page

    def worker(self) -> tuple[int, bool]:
        """The number of the worker's process, and whether it has only just been started."""
        if self._worker is not None and self._worker.poll() is None:
            return self._worker.pid, False
        environment = {
            **os.environ,
            "DUNEFOLD_DATABASE": str(connection.settings_dict["NAME"]),
            "DUNEFOLD_DATA": str(settings.DATA),
        }
        command = [sys.executable, "manage.py", "work"]
        self._worker = subprocess.Popen(command, cwd=settings.ROOT, env=environment)
        return self._worker.pid, True

    def end(self) -> None:
        """End what was started, the worker before its database goes."""
        for browser in self._browsers.values():
            browser.close()
        if self._playwright is not None:
            self._playwright.stop()
        if self.server is not None:
            self.server.terminate()
        if self._worker is not None:
            self._worker.terminate()
            self._worker.wait(LAST_TASK)


@cache
def shared() -> Shared:
    return Shared()
