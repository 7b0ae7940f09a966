"""The web application as an ASGI server calls it."""

import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import django
from asgiref.sync import sync_to_async
from django.core.handlers.asgi import ASGIHandler
from django.db import close_old_connections
from django.http import HttpRequest
from django.http.response import HttpResponseBase

from server.config import file_turns

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.config.settings")

#: Requests that are answered at once, those that only read and those that write; others wait their turn. More
#: would only be in each other's way: of those that write, SQLite lets in one at a time.
READING, WRITING = 12, 6


class FewThreadsHandler(ASGIHandler):
    """Answers a request from its first middleware to its view in one of a few threads, each of which keeps
    its connection to the database. Django's own handler goes to and fro between threads and the event loop
    for each middleware, and makes a thread and a connection for each request, which takes longer than most
    answers. What comes in or is fetched slowly has no part in that."""

    def __init__(self) -> None:
        super().__init__()
        self._reading = ThreadPoolExecutor(READING, "reading")
        self._writing = ThreadPoolExecutor(WRITING, "writing")
        self._files, self._turns = ThreadPoolExecutor(file_turns.AT_ONCE, "files"), file_turns.Turns()

    def load_middleware(self, is_async: bool = False) -> None:
        super().load_middleware(is_async=False)

    async def __call__(self, scope: Any, receive: Any, send: Any) -> None:
        if scope["type"] != "http":
            raise ValueError("Only HTTP is spoken here.")
        await self.handle(scope, receive, send)

    async def run_get_response(self, request: HttpRequest) -> HttpResponseBase:
        if not file_turns.is_file_work(request):
            reads = request.method in ("GET", "HEAD")
            return await self._answered(request, self._reading if reads else self._writing)
        try:
            async with self._turns.taken(file_turns.whose(request)):
                return await self._answered(request, self._files)
        except file_turns.Busy:
            return file_turns.busy()

    async def _answered(self, request: HttpRequest, threads: ThreadPoolExecutor) -> HttpResponseBase:
        answer: Callable[[HttpRequest], Any] = self._answer
        response = await sync_to_async(answer, thread_sensitive=False, executor=threads)(request)
        response._handler_class = type(self)
        return response  # type: ignore[no-any-return]

    def _answer(self, request: HttpRequest) -> Any:
        # Only one that has failed, or that was opened while nothing could be written, is closed.
        close_old_connections()
        return self.get_response(request)


django.setup(set_prefix=False)
application = FewThreadsHandler()
