"""Requests that read or make files: they have threads of their own, and nobody takes all of them, so that
those who only read and edit never wait for a file."""

from __future__ import annotations

import asyncio
import re
from collections import Counter
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager

from django.http import HttpRequest, JsonResponse

#: As many at once, of all people; and of one person, or by one link. More wait, but no more than so many of
#: one, and no longer than so long; seconds.
AT_ONCE, AT_ONCE_OF_ONE, MAX_WAITING_OF_ONE, MAX_WAIT = 4, 2, 12, 20.0
BUSY = "Many files are being read and made just now. Try again in a minute."
#: What is fetched and is made when it is asked for.
_MADE = re.compile(
    r"^/api/(?:issue-register|comment-bcf|comment-summary|(?:annotations|reviews)/[^/]+/(?:xlsx|pdf))/$"
)
_LINK = re.compile(r"^/api/reviewed/([^/]+)/")


def is_file_work(request: HttpRequest) -> bool:
    """Whether a request brings a file that is read, or asks for one that is made for it."""
    if request.method == "POST":
        return (request.content_type or "").startswith("multipart/")
    return _MADE.match(request.path) is not None


def whose(request: HttpRequest) -> str:
    """By whom a request comes: a link, a token, a browser that is signed in, or an address."""
    link = _LINK.match(request.path)
    named = (
        (link and link[1])
        or request.headers.get("Authorization")
        or request.COOKIES.get("sessionid")
        or request.META.get("REMOTE_ADDR", "")
    )
    return str(named)


def busy() -> JsonResponse:
    """What somebody is answered who has to come again."""
    return JsonResponse({"detail": BUSY}, status=503, headers={"Retry-After": "10"})


class Busy(Exception):
    """There are too many before this one."""


class Turns:
    """Whose turn it is, in one event loop."""

    def __init__(self) -> None:
        self._all = asyncio.Semaphore(AT_ONCE)
        self._of: dict[str, asyncio.Semaphore] = {}
        self._there: Counter[str] = Counter()

    @asynccontextmanager
    async def taken(self, key: str) -> AsyncIterator[None]:
        """Wait for a turn, and have it within.

        Raises:
            Busy: so many of the same wait already, or it does not come in time.
        """
        if self._there[key] >= AT_ONCE_OF_ONE + MAX_WAITING_OF_ONE:
            raise Busy
        own = self._of.setdefault(key, asyncio.Semaphore(AT_ONCE_OF_ONE))
        self._there[key] += 1
        try:
            async with _in_time(own), _in_time(self._all):
                yield
        finally:
            self._there[key] -= 1
            if not self._there[key]:
                del self._there[key], self._of[key]


@asynccontextmanager
async def _in_time(turn: asyncio.Semaphore) -> AsyncIterator[None]:
    try:
        await asyncio.wait_for(turn.acquire(), MAX_WAIT)
    except TimeoutError as error:
        raise Busy from error
    try:
        yield
    finally:
        turn.release()
