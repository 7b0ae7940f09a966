"""Two states of a sheet compared; by itself, for what finds lines again takes long to load."""

from __future__ import annotations

from pathlib import Path

from drafting.issuing.comparison import compare
from drafting.issuing.comparison_page import comparison_page, plain_page
from drafting.issuing.difference import Difference
from drafting.issuing.frozen import thaw
from drafting.progress import Progress, silent
from drafting.render.backends import FORMATS
from drafting.render.page import FileInfo
from drafting.tasks.stored import sources_of


def compare_states(
    states: tuple[Path, Path],
    names: tuple[str, str],
    linework: dict[str, Path],
    pictures: dict[str, Path],
    folder: Path,
    ignore_moves: bool,
    progress: Progress = silent,
) -> list[Difference]:
    """Compare two frozen sheets, `names` saying which they are, and write `before.svg`, `after.svg`,
    `over.svg` and `over.pdf` into `folder`."""
    before, after = (thaw(path.read_bytes()) for path in states)
    sources = sources_of(linework, pictures)
    progress("Comparing", 0.1)
    comparison = compare(before, after, sources, ignore_moves=ignore_moves)
    over = comparison_page(comparison, *names)
    pages = {"before": plain_page(before), "after": plain_page(after), "over": over}
    for k, (name, page) in enumerate(pages.items()):
        progress("Drawing the comparison", 0.4 + 0.15 * k)
        (folder / f"{name}.svg").write_bytes(FORMATS["svg"].write([page], sources, FileInfo(page.name)))
    (folder / "over.pdf").write_bytes(FORMATS["pdf"].write([over], sources, FileInfo(over.name)))
    return list(comparison.differences)
