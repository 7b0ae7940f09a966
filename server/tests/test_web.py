"""The web process: connections that ask for nothing, and requests that come in slowly."""

from __future__ import annotations

import asyncio
import io
import os
import socket
import subprocess
import sys
import threading
from collections import Counter
from typing import Any
from unittest.mock import patch

from django.conf import settings
from django.test import RequestFactory, SimpleTestCase

from server.config import file_turns, web


async def answer(scope: Any, receive: Any, send: Any) -> None:
    """An application that answers when it has all of the request."""
    size = 0
    while (message := await receive())["type"] == "http.request":
        size += len(message["body"])
        if not message["more_body"]:
            break
    await send({"type": "http.response.start", "status": 200, "headers": [(b"content-length", b"4")]})
    await send({"type": "http.response.body", "body": f"{size:4d}".encode()})


class WebServerTests(SimpleTestCase):
    def setUp(self) -> None:
        listening = socket.create_server(("127.0.0.1", 0))
        self.port = listening.getsockname()[1]
        server = web.web_server(answer)
        thread = threading.Thread(target=server.run, kwargs={"sockets": [listening]})
        self.enterContext(patch.object(web, "PATIENCE", 0.5))
        # What is asked here needs no processes beside it.
        self.enterContext(patch.object(web.beside, "start"))
        thread.start()
        self.addCleanup(thread.join, 10)
        self.addCleanup(setattr, server, "should_exit", True)

    def connected(self) -> socket.socket:
        connection = socket.create_connection(("127.0.0.1", self.port), timeout=10)
        self.addCleanup(connection.close)
        return connection

    def test_many_silent_connections_keep_nobody_waiting_and_are_closed(self):
        silent = [self.connected() for _ in range(150)]
        for connection in silent[::2]:
            connection.sendall(b"GET / HTTP/1.1\r\nHost: x\r\n")
        asking = self.connected()
        asking.sendall(b"GET / HTTP/1.1\r\nHost: x\r\n\r\n")
        self.assertIn(b"200 OK", asking.recv(1000))
        for connection in silent:
            self.assertEqual(connection.recv(1000), b"")

    def test_a_body_that_comes_slowly_is_waited_for_as_long_as_it_comes(self):
        asking = self.connected()
        asking.sendall(b"POST / HTTP/1.1\r\nHost: x\r\nContent-Length: 5\r\n\r\n")
        pause = threading.Event()
        for _ in range(5):
            pause.wait(0.25)
            asking.sendall(b"x")
        self.assertTrue(asking.recv(1000).startswith(b"HTTP/1.1 200"))
        # One that stays away is not.
        asking.sendall(b"POST / HTTP/1.1\r\nHost: x\r\nContent-Length: 5\r\n\r\n")
        asking.settimeout(10)
        while asking.recv(1000):
            pass

    def test_a_head_without_end_is_refused_before_it_fills_the_memory(self):
        asking = self.connected()
        asking.sendall(b"GET / HTTP/1.1\r\nHost: x\r\nX: ")
        with self.assertRaises(OSError):
            for _ in range(1000):
                asking.sendall(b"x" * 65_536)

    def test_requests_that_come_together_are_answered_one_after_the_other(self):
        asking = self.connected()
        asking.sendall(2 * b"POST / HTTP/1.1\r\nHost: x\r\nContent-Length: 3\r\n\r\nabc")
        said = b""
        while said.count(b"   3") < 2:
            said += asking.recv(1000)
        self.assertEqual(said.count(b"200 OK"), 2)


class LoadedTests(SimpleTestCase):
    def test_what_answers_requests_composes_and_plots_sheets_loads_no_compiler(self) -> None:
        asked = (
            "import sys, django; django.setup()\n"
            "import server.config.urls, server.config.asgi, server.sheets.composing, drafting.tasks.sheets\n"
            "print(*{'numba', 'scipy', 'ifcopenshell'} & sys.modules.keys())"
        )
        loaded = subprocess.run(
            [sys.executable, "-c", asked],
            cwd=settings.ROOT,
            env={**os.environ, "DJANGO_SETTINGS_MODULE": "server.config.settings"},
            check=True,
            capture_output=True,
            text=True,
        )
        self.assertEqual(loaded.stdout.strip(), "")


class FileTurnTests(SimpleTestCase):
    """What reads and makes files keeps nobody else from editing."""

    def test_files_are_told_from_what_is_read_and_edited(self):
        make = RequestFactory()
        files = [
            make.post("/api/pictures/", {"file": io.BytesIO(b"x")}),
            make.get("/api/comment-bcf/?project=7"),
            make.get("/api/annotations/7/xlsx/"),
        ]
        others = [
            make.post("/api/changes/", {}, content_type="application/json"),
            make.get("/api/annotations/"),
            make.get("/api/plots/7/file/"),
        ]
        self.assertEqual(
            [file_turns.is_file_work(each) for each in (*files, *others)], [True] * 3 + [False] * 3
        )

    def test_nobody_takes_all_turns_and_who_asks_for_very_many_is_told_at_once(self):
        async def scene() -> None:
            turns, gate = file_turns.Turns(), asyncio.Event()
            at_work: Counter[str] = Counter()
            most: Counter[str] = Counter()

            async def work(who: str) -> None:
                async with turns.taken(who):
                    at_work[who] += 1
                    most[who] = max(most[who], at_work[who])
                    await gate.wait()
                    at_work[who] -= 1

            of_one = file_turns.AT_ONCE_OF_ONE + file_turns.MAX_WAITING_OF_ONE
            working = [asyncio.create_task(work("ines")) for _ in range(of_one)]
            await asyncio.sleep(0)
            with self.assertRaises(file_turns.Busy):
                await work("ines")
            working.append(asyncio.create_task(work("jonas")))
            await asyncio.sleep(0.01)
            self.assertEqual((at_work["ines"], at_work["jonas"]), (file_turns.AT_ONCE_OF_ONE, 1))
            gate.set()
            await asyncio.gather(*working)
            self.assertEqual(most["ines"], file_turns.AT_ONCE_OF_ONE)
            self.assertEqual((turns._of, +turns._there), ({}, Counter()))

        asyncio.run(scene())

    def test_who_waits_too_long_is_told_to_come_again(self):
        async def scene() -> None:
            turns = file_turns.Turns()
            async with turns.taken("ines"), turns.taken("ines"):
                with patch.object(file_turns, "MAX_WAIT", 0.01), self.assertRaises(file_turns.Busy):
                    async with turns.taken("ines"):
                        self.fail("It is somebody else's turn.")
            async with turns.taken("ines"):
                pass

        asyncio.run(scene())
        self.assertEqual(
            (file_turns.busy().status_code, file_turns.busy().headers["Retry-After"]), (503, "10")
        )
