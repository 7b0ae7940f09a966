"""The server of the web process: patient with slow requests, and with an end to silent ones."""

from __future__ import annotations

import asyncio
import socket
from types import FrameType
from typing import Any

import uvicorn
from uvicorn.protocols.http.httptools_impl import HttpToolsProtocol

from server.common import beside
from server.config.asgi import application

#: Connections that ask for nothing cost little; there may be many, and each is closed soon.
MAX_CONNECTIONS = 1000
#: How long a connection may be silent within a request, or take to say what it asks for; seconds.
PATIENCE = 30.0
#: More bytes than this are no head of a request.
MAX_HEAD = 65_536
#: How long a connection is kept for the next request: longer than browsers and proxies keep theirs, so that
#: none is closed just as it is used again; seconds.
KEPT = 75
#: How long answers under way may take once the process is to end; seconds.
GRACE = 3


class PatientProtocol(HttpToolsProtocol):
    """HTTP over a connection that is closed when its request does not come."""

    _waiting: asyncio.TimerHandle | None = None
    #: Bytes that have come of a request's head; None once it is whole.
    _head: int | None = None

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        super().connection_made(transport)
        self._wait()

    def data_received(self, data: bytes) -> None:
        super().data_received(data)
        if self._head is not None:
            self._head += len(data)
            if self._head > MAX_HEAD:
                self.send_400_response("The head of this request is too long.")

    def on_message_begin(self) -> None:
        super().on_message_begin()
        self._head = 0
        # A request's headers have to be whole in time; of its body, some has to come in time.
        if self._waiting is None:
            self._wait()

    def on_headers_complete(self) -> None:
        self._head = None
        self._wait()
        super().on_headers_complete()

    def on_body(self, body: bytes) -> None:
        self._wait()
        super().on_body(body)

    def on_message_complete(self) -> None:
        self._end_waiting()
        super().on_message_complete()

    def connection_lost(self, exc: Exception | None) -> None:
        self._end_waiting()
        super().connection_lost(exc)

    def _wait(self) -> None:
        self._end_waiting()
        self._waiting = self.loop.call_later(PATIENCE, self.transport.close)

    def _end_waiting(self) -> None:
        if self._waiting is not None:
            self._waiting.cancel()
            self._waiting = None


class WebServer(uvicorn.Server):
    """A server that says goodbye to those who are told of changes before it waits for the others."""

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        beside.start()
        await super().startup(sockets)

    async def shutdown(self, sockets: list[socket.socket] | None = None) -> None:
        await super().shutdown(sockets)
        beside.stop()

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        from server.events.hub import hub

        hub.end()
        super().handle_exit(sig, frame)


def web_server(app: Any = application, port: int = 0, proxy: str = "") -> WebServer:
    """A server on this machine's own address. What the proxy at an address says of a request is believed, and
    nobody else."""
    config = uvicorn.Config(
        app,
        host="127.0.0.1",
        port=port,
        http=PatientProtocol,
        ws="none",
        lifespan="off",
        log_config=None,
        access_log=False,
        server_header=False,
        proxy_headers=bool(proxy),
        forwarded_allow_ips=proxy,
        limit_concurrency=MAX_CONNECTIONS,
        backlog=MAX_CONNECTIONS,
        timeout_keep_alive=KEPT,
        timeout_graceful_shutdown=GRACE,
    )
    return WebServer(config)
