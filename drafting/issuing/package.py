"""What a recipient is sent: files of frozen sheets in their formats."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from drafting.errors import DraftingError, SheetError
from drafting.issuing.file_names import names_for
from drafting.issuing.frozen import FrozenSheet
from drafting.issuing.recipients import Form, Recipient, display_for, settings_for
from drafting.plotting.files import file_name
from drafting.plotting.pages import page_for
from drafting.plotting.settings import PlotSettings
from drafting.progress import Progress
from drafting.render.backend import Sources
from drafting.render.backends import FORMATS
from drafting.render.page import FileInfo, Page


@dataclass(frozen=True)
class MadeFile:
    """A file of a package: its name, its format, and what is in it."""

    name: str
    form: Form
    data: bytes


def package(
    sheets: Sequence[FrozenSheet],
    settings: Sequence[PlotSettings],
    recipient: Recipient,
    sources: Sources,
    about: tuple[str, str],
    progress: Progress,
) -> list[MadeFile]:
    """The files of one recipient, but for the model itself, which is sent as it is.

    Args:
        settings: what each sheet is plotted with.
        about: the name of the issue, which a file of several sheets has too, and who made it.

    Raises:
        SheetError: two files would have one name, or a sheet cannot be plotted so; it names the recipient.
    """
    try:
        names = names_for(recipient.file_names, [sheet.field_values for sheet in sheets])
        pages = [
            page_for(sheet, display_for(recipient, sheet.display), settings_for(recipient, each))
            for sheet, each in zip(sheets, settings, strict=True)
        ]
        made: list[MadeFile] = []
        for form in recipient.forms:
            if form != "model":
                made += _files(form, names, pages, settings, recipient, sources, about, progress)
        return made
    except DraftingError as error:
        raise SheetError(f"{recipient.name}: {error}") from error


def _files(
    form: Form,
    names: Sequence[str],
    pages: Sequence[Page],
    settings: Sequence[PlotSettings],
    recipient: Recipient,
    sources: Sources,
    about: tuple[str, str],
    progress: Progress,
) -> list[MadeFile]:
    title, author = about
    kind, which = FORMATS[form], f"{recipient.name}, {form.upper()}"
    resolution = min(each.resolution for each in settings)
    if kind.many_pages and recipient.one_file and len(pages) > 1:

        def counted() -> Iterator[Page]:
            for k, page in enumerate(pages):
                progress(f"{which}: {page.name}", k / len(pages))
                yield page

        data = kind.write(counted(), sources, FileInfo(title, author, resolution))
        return [MadeFile(f"{file_name(title)}.{form}", form, data)]
    made = []
    for k, (name, page) in enumerate(zip(names, pages, strict=True)):
        progress(f"{which}: {page.name}", k / len(pages))
        data = kind.write([page], sources, FileInfo(page.name, author, resolution))
        made.append(MadeFile(f"{name}.{form}", form, data))
    return made
