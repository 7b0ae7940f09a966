"""A recorder: keeps what is drawn as calls of the primitives, to be looked at or replayed on another back
end."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import ExitStack, contextmanager
from dataclasses import dataclass
from typing import Any

from drafting.geometry.polylines import Polylines
from drafting.render.backend import Backend, Sources
from drafting.render.items import Image, Text
from drafting.render.page import Page
from drafting.styles.pens import Pen

#: Calls within which others stand.
_OPENING = ("on_sheet", "clip")
_END = "end"


@dataclass(frozen=True)
class RecordedCall:
    """A primitive of the interface by its name, with what it was given."""

    name: str
    arguments: tuple[Any, ...] = ()


class Recorder(Backend):
    """Keeps every call in `calls`, in order."""

    def __init__(self, sources: Sources) -> None:
        super().__init__(sources)
        self.calls: list[RecordedCall] = []

    def replay(self, backend: Backend) -> None:
        """Draw what was recorded on another back end."""
        with ExitStack() as stack:
            open_: list[ExitStack] = [stack]
            for call in self.calls:
                if call.name == _END:
                    open_.pop().close()
                elif call.name in _OPENING:
                    inner = ExitStack()
                    inner.enter_context(getattr(backend, call.name)(*call.arguments))
                    open_.append(inner)
                else:
                    getattr(backend, call.name)(*call.arguments)

    @contextmanager
    def _within(self, name: str, *arguments: Any) -> Iterator[None]:
        self.calls.append(RecordedCall(name, arguments))
        yield
        self.calls.append(RecordedCall(_END))

    @contextmanager
    def on_sheet(self, page: Page) -> Iterator[None]:
        with self._within("on_sheet", page):
            yield

    @contextmanager
    def clip(self, outline: Sequence[tuple[float, float]]) -> Iterator[None]:
        with self._within("clip", outline):
            yield

    def layer(self, name: str) -> None:
        self.calls.append(RecordedCall("layer", (name,)))

    def stroke(self, lines: Polylines, pen: Pen, closed: bool = False) -> None:
        self.calls.append(RecordedCall("stroke", (lines, pen, closed)))

    def fill(self, rings: Polylines, colour: str, opacity: float = 1.0) -> None:
        self.calls.append(RecordedCall("fill", (rings, colour, opacity)))

    def text(self, item: Text) -> None:
        self.calls.append(RecordedCall("text", (item,)))

    def image(self, item: Image) -> None:
        self.calls.append(RecordedCall("image", (item,)))
