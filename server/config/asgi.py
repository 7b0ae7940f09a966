"""The web application as an ASGI server calls it."""

import os
from typing import Any

import django
from asgiref.sync import sync_to_async
from django.core.handlers.asgi import ASGIHandler
from django.http import HttpRequest
from django.http.response import HttpResponseBase

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.config.settings")


class OneThreadHandler(ASGIHandler):
    """Answers a request from its first middleware to its view in one thread. Django's own handler goes to and
    fro between threads and the event loop for each middleware, which takes longer than most answers."""

    def load_middleware(self, is_async: bool = False) -> None:
        super().load_middleware(is_async=False)

    async def run_get_response(self, request: HttpRequest) -> HttpResponseBase:
        response: Any = await sync_to_async(self.get_response)(request)
        response._handler_class = type(self)
        return response  # type: ignore[no-any-return]


django.setup(set_prefix=False)
application = OneThreadHandler()
