"""Pages to files of every format; several that have no pages of their own are put together in one archive."""

from __future__ import annotations

import io
import re
import zipfile
from collections.abc import Iterable

from drafting.render.backend import Sources
from drafting.render.backends import FORMATS
from drafting.render.page import FileInfo, Page

#: The first moment that an archive can name: no file says when it was made, and so the same pages give the
#: same bytes.
_NO_DATE = (1980, 1, 1, 0, 0, 0)
_SIGNS = re.compile(r"[^\w .,()-]+")
MAX_NAME = 120


ARCHIVE = {"zip": "application/zip"}
#: What a file is, by its ending.
MEDIA_TYPES = {key: each.media_type for key, each in FORMATS.items()} | ARCHIVE


def write_file(name: str, pages: Iterable[Page], sources: Sources, info: FileInfo) -> tuple[bytes, str]:
    """Pages in one of FORMATS, and the ending of what was written.

    Raises:
        SheetError: a page cannot be written so.
    """
    form = FORMATS[name]
    if form.many_pages:
        return form.write(pages, sources, info), name
    written = [(page, form.write([page], sources, info)) for page in pages]
    if len(written) == 1:
        return written[0][1], name
    files = [(f"{number:02d} {page.name}", data) for number, (page, data) in enumerate(written, 1)]
    return _archive([(f"{file_name(stem)}.{name}", data) for stem, data in files]), "zip"


def file_name(words: str) -> str:
    """Words as the name of a file without its ending, on every system.

    >>> file_name("A-01 Plan: ground/floor")
    'A-01 Plan_ ground_floor'
    """
    return _SIGNS.sub("_", words).strip()[:MAX_NAME].rstrip()


def _archive(files: list[tuple[str, bytes]]) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, data in files:
            archive.writestr(zipfile.ZipInfo(name, _NO_DATE), data, zipfile.ZIP_DEFLATED)
    return out.getvalue()
