"""The web process: connections that ask for nothing, and requests that come in slowly."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import threading
from typing import Any
from unittest.mock import patch

from django.conf import settings
from django.test import SimpleTestCase

from server.config import web


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
