"""Sheets: plotted, and packed for recipients."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

from drafting.issuing.frozen import thaw
from drafting.issuing.package import package
from drafting.issuing.recipients import Recipient
from drafting.plotting.files import write_file
from drafting.plotting.settings import PlotSettings
from drafting.progress import Progress, silent
from drafting.render.page import FileInfo, Page
from drafting.tasks.stored import sources_of


def plot_sheets(
    pages: list[Page],
    linework: dict[str, Path],
    pictures: dict[str, Path],
    target: Path,
    form: str,
    info: FileInfo,
    progress: Progress = silent,
) -> str:
    """Write pages, in their order, to `target`, and say the ending of what was written. `linework` and
    `pictures` say where each is kept.

    Raises:
        SheetError: a page cannot be written in this form.
    """

    def counted() -> Iterator[Page]:
        for number, page in enumerate(pages):
            progress(f"Plotting {page.name}", number / len(pages))
            yield page

    data, ending = write_file(form, counted(), sources_of(linework, pictures), info)
    target.write_bytes(data)
    return ending


def issue_package(
    states: list[Path],
    settings: list[PlotSettings],
    recipient: Recipient,
    linework: dict[str, Path],
    pictures: dict[str, Path],
    folder: Path,
    about: tuple[str, str],
    progress: Progress = silent,
) -> list[tuple[str, str]]:
    """Write what a recipient is sent into `folder`: the name and the format of each file. `states` are frozen
    sheets, `about` the name of the issue and who made it.

    Raises:
        SheetError: a sheet cannot be written so, or two files would have one name.
    """
    sheets = [thaw(path.read_bytes()) for path in states]
    made = package(sheets, settings, recipient, sources_of(linework, pictures), about, progress)
    folder.mkdir(parents=True, exist_ok=True)
    for file in made:
        (folder / file.name).write_bytes(file.data)
    return [(file.name, file.form) for file in made]
