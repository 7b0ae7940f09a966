"""Who is in which project just now, and what they are told of as it happens. It is kept in the memory of the
web process, of which there is one: nothing of it outlasts the page that it is about."""

from __future__ import annotations

import asyncio
import json
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from django.core.serializers.json import DjangoJSONEncoder

#: Pages that are told of changes: of all people, and of one.
MAX_STREAMS, MAX_OF_ONE = 500, 24
#: A page asks for its lists before it listens: kinds of which rows changed so short a time before are told
#: to it at once; seconds.
JUST_BEFORE = 10.0
#: More rows than this are not told one by one, but that there are others of their kind.
MAX_ROWS = 100


class TooMany(Exception):
    """Nobody more can be told; whoever asked has to look by themselves."""


@dataclass(frozen=True)
class Place:
    """Where somebody is in a project, and what they hold in the hand.

    Attributes:
        station: model, views, sheets, check or issue.
        subject: the sheet or view that is open; blank for none.
        holding: the ids of what is chosen or being dragged.
    """

    station: str = ""
    subject: str = ""
    holding: tuple[str, ...] = ()


@dataclass(frozen=True)
class Changed:
    """A row as it is now; None where it is deleted."""

    topic: str
    id: str
    row: Any

    @cached_property
    def as_json(self) -> str:
        """What all who are told of it are sent."""
        told = {"topic": self.topic, "id": self.id, "row": self.row}
        return json.dumps(told, cls=DjangoJSONEncoder)


@dataclass(frozen=True)
class News:
    """What a page is told at once.

    Attributes:
        rows: that others have changed.
        topics: kinds of rows of which others have changed some that are not told, or jobs.
        people: whether somebody came, went or moved.
    """

    rows: tuple[Changed, ...] = ()
    topics: tuple[str, ...] = ()
    people: bool = False


@dataclass(eq=False)
class Stream:
    """One page of somebody's, as it is told of what happens in its project.

    Attributes:
        tab: a name that the page gave itself, by which its own changes are known again.
    """

    project: str
    user: str
    tab: str
    place: Place = Place()
    ended: bool = False
    _topics: dict[str, set[str]] = field(default_factory=dict)
    _rows: dict[tuple[str, str], tuple[Changed, str]] = field(default_factory=dict)
    _people: bool = True
    _loop: asyncio.AbstractEventLoop = field(default_factory=asyncio.get_running_loop)
    _wake: asyncio.Event = field(default_factory=asyncio.Event)

    @property
    def key(self) -> tuple[str, str]:
        return self.user, self.tab

    def note(self, topic: str, tab: str) -> None:
        self._topics.setdefault(topic, set()).add(tab)
        self.wake()

    def note_row(self, changed: Changed, tab: str) -> None:
        if len(self._rows) < MAX_ROWS:
            self._rows[changed.topic, changed.id] = changed, tab
            self.wake()
        else:
            self.note(changed.topic, tab)

    def note_people(self) -> None:
        self._people = True
        self.wake()

    def wake(self) -> None:
        if not self._loop.is_closed():
            self._loop.call_soon_threadsafe(self._wake.set)

    async def wait(self, seconds: float) -> bool:
        """Wait until there is something to tell. Whether there is."""
        try:
            async with asyncio.timeout(seconds):
                await self._wake.wait()
        except TimeoutError:
            return False
        self._wake.clear()
        return True

    def collect(self) -> News:
        """What others than the page itself have done since it was last asked."""
        topics, self._topics = self._topics, {}
        rows, self._rows = self._rows, {}
        people, self._people = self._people, False
        return News(
            tuple(changed for changed, tab in rows.values() if tab != self.tab),
            tuple(sorted(topic for topic, tabs in topics.items() if tabs != {self.tab})),
            people,
        )


class Hub:
    """The streams of this process. Its methods may be called from any thread."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        #: By project, and there by who and by the name of the page: nobody takes the place of somebody else.
        self._streams: dict[str, dict[tuple[str, str], Stream]] = {}
        #: By project: kinds of rows, by which page they were last changed, and when.
        self._lately: dict[str, dict[tuple[str, str], float]] = {}
        #: Called when the first stream is opened.
        self.on_first: Callable[[], None] = lambda: None

    def open(self, stream: Stream) -> None:
        """Begin to tell a page; one of the same name was left behind by a connection that broke.

        Raises:
            TooMany: there are so many already.
        """
        with self._lock:
            open_now = [each for of_one in self._streams.values() for each in of_one.values()]
            own = sum(each.user == stream.user for each in open_now)
            if len(open_now) >= MAX_STREAMS or own >= MAX_OF_ONE:
                raise TooMany
            streams = self._streams.setdefault(stream.project, {})
            left, streams[stream.key] = streams.get(stream.key), stream
            just_before = self._just_before(stream.project)
        if left is not None:
            stream.place = left.place
            left.ended = True
            left.wake()
        for topic, tab in just_before:
            stream.note(topic, tab)
        if not open_now:
            self.on_first()
        self._tell_people(stream.project)

    def _just_before(self, project: str) -> list[tuple[str, str]]:
        since = time.monotonic() - JUST_BEFORE
        lately = {of: {k: at for k, at in kinds.items() if at > since} for of, kinds in self._lately.items()}
        self._lately = {of: kinds for of, kinds in lately.items() if kinds}
        return list(self._lately.get(project, ()))

    def _note_lately(self, project: str, topic: str, tab: str) -> None:
        with self._lock:
            self._lately.setdefault(project, {})[topic, tab] = time.monotonic()

    def close(self, stream: Stream) -> None:
        with self._lock:
            streams = self._streams.get(stream.project, {})
            if streams.get(stream.key) is not stream:
                return
            del streams[stream.key]
            if not streams:
                del self._streams[stream.project]
        self._tell_people(stream.project)

    def projects(self) -> list[str]:
        """Those that somebody is told of."""
        with self._lock:
            return list(self._streams)

    def count(self) -> int:
        """How many pages are told."""
        with self._lock:
            return sum(len(streams) for streams in self._streams.values())

    def tell(self, project: str, topic: str, tab: str = "") -> None:
        """Rows of a kind, or jobs, have changed; `tab` is the page that changed them, where it is one."""
        self._note_lately(project, topic, tab)
        for stream in self._of(project):
            stream.note(topic, tab)

    def tell_row(self, project: str, changed: Changed, tab: str = "") -> None:
        """A row is now otherwise than it was."""
        self._note_lately(project, changed.topic, tab)
        for stream in self._of(project):
            stream.note_row(changed, tab)

    def move(self, project: str, user: str, tab: str, place: Place) -> None:
        """Note where a page is now. One that is not told of its project is not shown to others either."""
        with self._lock:
            stream = self._streams.get(project, {}).get((user, tab))
        if stream is not None and stream.place != place:
            stream.place = place
            self._tell_people(project)

    def others(self, stream: Stream) -> list[dict[str, Any]]:
        """The other pages that are open in a project, and where each is."""
        return [
            {
                "tab": each.tab,
                "user": each.user,
                "station": each.place.station,
                "subject": each.place.subject,
                "holding": list(each.place.holding),
            }
            for each in self._of(stream.project)
            if each is not stream
        ]

    def end(self) -> None:
        """End all streams: the process is about to."""
        for project in self.projects():
            for stream in self._of(project):
                stream.ended = True
                stream.wake()

    def _of(self, project: str) -> list[Stream]:
        with self._lock:
            return list(self._streams.get(project, {}).values())

    def _tell_people(self, project: str) -> None:
        for stream in self._of(project):
            stream.note_people()


hub = Hub()
