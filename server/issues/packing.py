"""What the recipients of an issue get: frozen sheets, and the files, transmittals and archives of them."""

from __future__ import annotations

import shutil
import zipfile
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Finding
from drafting.errors import SheetError
from drafting.issuing.frozen import FrozenSheet, freeze
from drafting.issuing.recipients import Recipient as CoreRecipient
from drafting.issuing.transmittal import SentFile, SentSheet, Transmittal, transmittal_pages
from drafting.plotting.files import file_name
from drafting.plotting.settings import PlotSettings as CoreSettings
from drafting.render.page import FileInfo
from server.buildings.models import newest_version
from server.common import storage
from server.issues import sending
from server.issues.freezing import files_of, paths, store_state
from server.issues.models import IssueOrder, Recipient
from server.jobs.runner import Work
from server.projects.models import Project
from server.sheets.models import Sheet
from server.sheets.shading import fine_pictures

#: The first moment that an archive can name: the same files give the same bytes.
_NO_DATE = (1980, 1, 1, 0, 0, 0)


@dataclass(frozen=True)
class Frozen:
    """A sheet as it is issued: the core's record of it, its fingerprint, and the hash under which it lies."""

    row: Sheet
    sheet: FrozenSheet
    fingerprint: str
    state: str


@dataclass(frozen=True)
class Moment:
    """Sheets as they are issued, in register order, what is wrong with them, and the hashes of what they are
    drawn from, by their keys."""

    sheets: Sequence[Frozen]
    errors: Sequence[Finding]
    linework: Mapping[str, str]
    pictures: Mapping[str, str]


def freeze_moment(
    project: Project, rows: Iterable[Sheet], looked_at: CheckedSet, errors: Sequence[Finding], work: Work
) -> Moment:
    """The sheets of a set, as they were when it was looked at."""
    by_id = {str(row.pk): row for row in rows}
    chosen = [each for each in looked_at.sheets if each.id in by_id]
    sheets = []
    for k, each in enumerate(chosen):
        work.step(f"Recording {each.number}", k / len(chosen))
        sheet = freeze(each.sheet, each.display)
        sheets.append(Frozen(by_id[each.id], sheet, each.fingerprint, store_state(sheet)))
    # Whoever is sent a sheet has its pictures as fine as anybody.
    finest = max((frozen.row.plot_settings.as_core.resolution for frozen in sheets), default=0)
    for frozen in sheets:
        fine_pictures(project, frozen.sheet.shaded_keys, finest, work)
    linework, pictures = files_of(project, [each.sheet for each in sheets])
    return Moment(sheets, errors, linework, pictures)


@dataclass(frozen=True)
class Package:
    """What was made for a recipient: what each sheet was plotted with; files by name, format, size and hash;
    the hashes of transmittal and archive."""

    recipient: CoreRecipient
    settings: Sequence[CoreSettings]
    files: tuple[tuple[str, str, int, str], ...]
    transmittal: str
    archive: str
    archive_name: str
    archive_size: int


def make_packages(
    order: IssueOrder, moment: Moment, recipients: Sequence[Recipient], folder: Path, work: Work
) -> list[Package]:
    """What each recipient gets, one after the other, made in `folder` and stored."""
    project = order.job.project
    files = [storage.path_of(each.state) for each in moment.sheets]
    linework, pictures = paths(moment.linework), paths(moment.pictures)
    made = []
    for k, row in enumerate(recipients):
        recipient, own = row.as_core, folder / str(k)
        settings = [(row.plot_settings or each.row.plot_settings).as_core for each in moment.sheets]
        about = about_of(order.name, [each.sheet for each in moment.sheets])
        names = work.run("sheets:issue_package", files, settings, recipient, linework, pictures, own, about)
        if "model" in recipient.forms:
            names = [*names, _model_of(project, own)]
        stored = [_stored(own / name, form) for name, form in names]
        transmittal = _transmittal(order, moment, recipient, stored, own, work)
        work.step(f"{recipient.name}: packing", k / len(recipients))
        archive = own / "archive"
        _pack(
            archive, [(name, digest) for name, _, _, digest in stored] + [(sending.TRANSMITTAL, transmittal)]
        )
        name = f"{file_name(f'{project.number} {order.name} {recipient.name}'.strip())}.zip"
        size = archive.stat().st_size
        packed = storage.store(archive)
        made.append(Package(recipient, settings, tuple(stored), transmittal, packed, name, size))
    return made


def about_of(name: str, sheets: Sequence[FrozenSheet]) -> tuple[str, str]:
    """What files of an issue say of themselves: its name, and who made it, as its first sheet has that. So
    they are made again from the record alone."""
    return name, sheets[0].field_values.get("practice", "") if sheets else ""


def _model_of(project: Project, folder: Path) -> tuple[str, str]:
    """The model as it was read, beside the other files."""
    version = newest_version(project)
    if version is None:
        raise SheetError("There is no model to be sent. Import one.")
    folder.mkdir(parents=True, exist_ok=True)
    shutil.copyfile(storage.path_of(version.source), folder / version.file_name)
    return version.file_name, "model"


def _stored(path: Path, form: str) -> tuple[str, str, int, str]:
    name, size = path.name, path.stat().st_size
    return name, form, size, storage.store(path)


def _transmittal(
    order: IssueOrder,
    moment: Moment,
    recipient: CoreRecipient,
    files: Sequence[tuple[str, str, int, str]],
    folder: Path,
    work: Work,
) -> str:
    """The hash of the transmittal to a recipient."""
    project, count = order.job.project, len(moment.errors)
    known = "1 known error" if count == 1 else f"{count} known errors"
    remarks = f"Issued with {known}: {order.reason}" if count else ""
    about = Transmittal(
        order.name,
        order.purpose,
        order.date,
        project.name,
        project.number,
        project.practice,
        ", ".join(part for part in (recipient.name, recipient.organisation) if part),
        sending.HOW[recipient.delivery],
        order.ordered_by.get_username() if order.ordered_by else "",
        tuple(
            SentSheet(
                each.sheet.number,
                each.sheet.field_values.get("title", ""),
                each.sheet.revision or "–",
                each.sheet.paper_name,
                each.sheet.field_values.get("scale", ""),
            )
            for each in moment.sheets
        ),
        tuple(SentFile(name, size, digest) for name, _, size, digest in files),
        remarks,
    )
    target = folder / sending.TRANSMITTAL
    folder.mkdir(parents=True, exist_ok=True)
    info = FileInfo(f"Transmittal, {order.name}", project.practice)
    work.run("sheets:plot_sheets", transmittal_pages(about), {}, {}, target, "pdf", info)
    return storage.store(target)


def _pack(target: Path, files: Iterable[tuple[str, str]]) -> None:
    """A ZIP of stored files under their names."""
    with zipfile.ZipFile(target, "w") as archive:
        for name, digest in files:
            entry = zipfile.ZipInfo(name, _NO_DATE)
            entry.compress_type = zipfile.ZIP_DEFLATED
            with archive.open(entry, "w") as out, storage.path_of(digest).open("rb") as stream:
                shutil.copyfileobj(stream, out)
