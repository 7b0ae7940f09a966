"""Pages through the back ends, for tests that measure the files."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from drafting.linework.model import Linework
from drafting.render.backend import Sources
from drafting.render.backends import dxf, pdf, png, svg
from drafting.render.backends.recorder import RecordedCall, Recorder
from drafting.render.display_list import DisplayList
from drafting.render.page import FileInfo, Page

Read = Callable[[str], Linework]


def write_pdf(
    pages: Iterable[Page], linework: Read, title: str = "", author: str = "", pictures=None
) -> bytes:
    sources = Sources(linework, pictures) if pictures else Sources(linework)
    return pdf.write(pages, sources, FileInfo(title, author))


def write_svg(page: Page, linework: Read, pictures=None) -> bytes:
    return svg.write([page], Sources(linework, pictures) if pictures else Sources(linework), FileInfo())


def write_dxf(pages: Iterable[Page], linework: Read) -> bytes:
    return dxf.write(pages, Sources(linework), FileInfo())


def write_png(page: Page, linework: Read, resolution: int) -> bytes:
    return png.write([page], Sources(linework), FileInfo(resolution=resolution))


def recorded(display: DisplayList, linework: Read) -> list[RecordedCall]:
    """The primitives that a display list comes to."""
    recorder = Recorder(Sources(linework))
    display.replay(recorder)
    return recorder.calls


def within_clips(calls: list[RecordedCall]) -> list[list[RecordedCall]]:
    """Of each clip, the fills and strokes within it."""
    found: list[list[RecordedCall]] = []
    inside = False
    for call in calls:
        if call.name == "clip":
            found.append([])
            inside = True
        elif call.name == "end":
            inside = False
        elif inside and call.name in ("fill", "stroke"):
            found[-1].append(call)
    return found
