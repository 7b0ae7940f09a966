"""One short module for each output, and the list of them."""

from __future__ import annotations

from dataclasses import dataclass
from importlib import import_module
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from collections.abc import Callable, Iterable

    from drafting.render.backend import Sources
    from drafting.render.page import FileInfo, Page


@dataclass(frozen=True)
class Format:
    """A format of files.

    Attributes:
        media_type: what it is called as a file's type (IANA).
        many_pages: whether one file holds several pages.
        key: the back end's module, and the ending of its files.
    """

    key: str
    media_type: str
    many_pages: bool

    @property
    def write(self) -> Callable[[Iterable[Page], Sources, FileInfo], bytes]:
        """The back end's writer; its library is loaded when it is first wanted."""
        writer: Callable[[Iterable[Page], Sources, FileInfo], bytes] = import_module(
            f"drafting.render.backends.{self.key}"
        ).write
        return writer


FORMATS = {
    each.key: each
    for each in (
        Format("pdf", "application/pdf", True),
        Format("dxf", "image/vnd.dxf", True),
        Format("svg", "image/svg+xml", False),
        Format("png", "image/png", False),
    )
}
