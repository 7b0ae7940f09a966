"""Pages to files of every form; several that have no pages of their own are put together in one archive."""

from __future__ import annotations

import io
import re
import zipfile
from collections.abc import Callable, Iterable
from dataclasses import dataclass

from drafting.linework.model import Linework
from drafting.plot.dxf import write_dxf
from drafting.plot.page import Page
from drafting.plot.pdf import write_pdf
from drafting.plot.png import write_png
from drafting.plot.svg import write_svg

#: The forms of files, and what each is called where a file's kind is told (IANA).
FORMS = {"pdf": "application/pdf", "dxf": "image/vnd.dxf", "svg": "image/svg+xml", "png": "image/png"}
ARCHIVE = {"zip": "application/zip"}
#: The first moment that an archive can name: no file says when it was made, and so the same pages give the same bytes.
_NO_DATE = (1980, 1, 1, 0, 0, 0)
_SIGNS = re.compile(r"[^\w .,()-]+")


@dataclass(frozen=True)
class Told:
    """What a file tells of itself: its title, who made it, and pixels to the inch where it has some."""

    title: str = ""
    author: str = ""
    resolution: int = 300


def write_file(
    form: str,
    pages: Iterable[Page],
    linework: Callable[[str], Linework],
    pictures: Callable[[str], bytes],
    told: Told,
) -> tuple[bytes, str]:
    """Pages in one of FORMS, and the ending of what was written.

    Raises:
        SheetError: a page cannot be written so.
    """
    if form == "pdf":
        return write_pdf(pages, linework, told.title, told.author, pictures), form
    if form == "dxf":
        return write_dxf(pages, linework), form
    written = [(page, _one(form, page, linework, pictures, told)) for page in pages]
    if len(written) == 1:
        return written[0][1], form
    return _archive(
        [(f"{number:02d} {page.name}.{form}", data) for number, (page, data) in enumerate(written, 1)]
    ), "zip"


def file_name(words: str) -> str:
    """Words as the name of a file, on every system."""
    return _SIGNS.sub("_", words).strip()[:120]


def _one(
    form: str, page: Page, linework: Callable[[str], Linework], pictures: Callable[[str], bytes], told: Told
) -> bytes:
    if form == "svg":
        return write_svg(page, linework, pictures)
    return write_png(page, linework, told.resolution, pictures)


def _archive(files: list[tuple[str, bytes]]) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, data in files:
            archive.writestr(zipfile.ZipInfo(file_name(name), _NO_DATE), data, zipfile.ZIP_DEFLATED)
    return out.getvalue()
