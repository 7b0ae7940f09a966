"""Reviews: what is shown to reviewers, and what comes back from them."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from drafting.geometry.boxes import Box
from drafting.issuing.frozen import thaw
from drafting.progress import Progress, silent
from drafting.render.backends import FORMATS
from drafting.render.page import FileInfo, whole_page
from drafting.review.bcf_reading import read_bcf
from drafting.review.before_after import cropped, pictured_now
from drafting.review.comments import ReadFile, ReadTopic
from drafting.review.pdf_reading import read_pdf
from drafting.review.prepared import Prepared
from drafting.review.preparing import prepare
from drafting.review.scans import Scan, lay
from drafting.tasks.stored import building_at, sources_of
from drafting.views.spec import parse_view_spec


def prepare_review(
    states: list[Path],
    origins: list[dict[str, tuple[Path, dict[str, Any]]]],
    linework: dict[str, Path],
    pictures: dict[str, Path],
    folder: Path,
    info: FileInfo,
    progress: Progress = silent,
) -> list[Prepared]:
    """Write what reviewers of frozen sheets are shown into `folder`. `origins` says of each sheet, by the ids
    of its viewports, from which stored building and view its drawings were made."""
    sheets = [thaw(path.read_bytes()) for path in states]
    parsed = [
        {key: (stored, parse_view_spec(view)) for key, (stored, view) in each.items()} for each in origins
    ]
    return prepare(sheets, parsed, sources_of(linework, pictures), building_at, folder, info, progress)


def read_comments(source: Path, states: list[Path], progress: Progress = silent) -> ReadFile:
    """Read what is said in a PDF of frozen sheets.

    Raises:
        SheetError: it is no PDF, is locked, or shows none of the sheets.
    """
    return read_pdf(source, [thaw(path.read_bytes()) for path in states], progress)


def before_and_after(
    pdf: Path,
    page: int,
    state: Path,
    linework: dict[str, Path],
    pictures: dict[str, Path],
    boxes: tuple[Box, Box],
    per_mm: float,
    folder: Path,
    progress: Progress = silent,
) -> None:
    """Write `before.png` and `after.png` into `folder`: a part of a page of a PDF, and one of a frozen sheet.

    Args:
        boxes: which parts, paper mm.
        per_mm: pixels for a mm of the second, so that both show what they show alike.
    """
    progress("Showing before and after", 0.1)
    (folder / "before.png").write_bytes(cropped(pdf, page, boxes[0]))
    sheet = thaw(state.read_bytes())
    now = pictured_now(sheet, sources_of(linework, pictures), boxes[1], per_mm, folder)
    (folder / "after.png").write_bytes(now)


def lay_scan(
    source: Path,
    name: str,
    state: Path,
    linework: dict[str, Path],
    pictures: dict[str, Path],
    target: Path,
    folder: Path,
    progress: Progress = silent,
) -> Scan:
    """Keep a scan at `target`, and find how it lies on a frozen sheet.

    Raises:
        SheetError: it is no picture, or far too large; nothing is written.
    """
    sheet = folder / "sheet.pdf"
    page = whole_page(thaw(state.read_bytes()).display)
    sheet.write_bytes(FORMATS["pdf"].write([page], sources_of(linework, pictures), FileInfo()))
    return lay(source, name, sheet, target, progress)


def read_topics(source: Path, progress: Progress = silent) -> list[ReadTopic]:
    """Read what is said in a BCF file.

    Raises:
        SheetError: it is none, or far too large.
    """
    return read_bcf(source, progress)
