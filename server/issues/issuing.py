"""Making an issue: all of it, or nothing."""

from __future__ import annotations

import shutil
import zipfile
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from django.db import transaction
from django.db.models import Max

from drafting.checks.findings import Finding
from drafting.errors import SheetError
from drafting.issuing.file_names import names_for
from drafting.issuing.frozen import thaw
from drafting.issuing.recipients import Recipient as CoreRecipient
from drafting.issuing.recipients import settings_for
from drafting.issuing.transmittal import SentFile, SentSheet, Transmittal, transmittal_pages
from drafting.plotting.files import file_name
from drafting.plotting.settings import PlotSettings as CoreSettings
from drafting.plotting.settings import conflicts, parse_plot_settings
from drafting.render.page import FileInfo
from drafting.schema import dump
from server.buildings.models import newest_version
from server.checks.services import standing_errors
from server.common import storage
from server.common.space import DISK_FULL, is_out_of_space
from server.issues import sending
from server.issues.freezing import Frozen, files_of, files_of_issue, freeze_sheets, paths, store_state
from server.issues.models import (
    Issue,
    IssuedFile,
    IssuedRecipient,
    IssuedSheet,
    IssueOrder,
    KeptFile,
    Recipient,
    Remake,
)
from server.jobs import services as jobs
from server.jobs.models import Job
from server.jobs.runner import Work
from server.projects.models import Project
from server.sheets.models import Sheet

#: The first moment that an archive can name: the same files give the same bytes.
_NO_DATE = (1980, 1, 1, 0, 0, 0)
TRANSMITTAL = "Transmittal.pdf"


@dataclass(frozen=True)
class Made:
    """What was made for a recipient: what each sheet was plotted with; files by name, format, size and hash;
    the hashes of transmittal and archive."""

    recipient: CoreRecipient
    settings: Sequence[CoreSettings]
    files: tuple[tuple[str, str, int, str], ...]
    transmittal: str
    archive: str
    archive_name: str
    archive_size: int


def order_issue(
    project: Project,
    user: Any,
    given: dict[str, Any],
    sheets: Sequence[Sheet],
    recipients: Sequence[Recipient],
) -> IssueOrder:
    """Have sheets issued, in the background. `given` are name, purpose, date and reason.

    Raises:
        SheetError: nobody or nothing is chosen, something does not go together, or the date is earlier than
            that of the last issue.
    """
    _check(project, given, sheets, recipients)
    with transaction.atomic():
        job = jobs.start(project, Job.Kind.ISSUE, given["name"], str(project.pk), long=True)
        order = IssueOrder.objects.create(job=job, ordered_by=user, **given)
        order.sheets.set(sheets)
        order.recipients.set(recipients)
    return order


def _check(
    project: Project,
    given: dict[str, Any],
    sheets: Sequence[Sheet],
    recipients: Sequence[Recipient],
) -> None:
    if not sheets:
        raise SheetError("No sheet is chosen. Tick those that are to be issued.")
    if not recipients:
        raise SheetError("Nobody is chosen to be sent these sheets. Tick a recipient.")
    last = Issue.objects.filter(project=project).last()
    if last is not None and given["date"] < last.date:
        raise SheetError(
            f"“{last.name}” was issued on {last.date}, and {given['date']} is earlier. "
            "Check the date, and the clock of the server."
        )
    if jobs.active(Job.Kind.ISSUE, str(project.pk)):
        raise SheetError("An issue of this project is being made. Wait until it is done, or cancel it.")
    fields = [{"number": s.number, "title": s.title, "revision": s.revision} for s in sheets]
    for row in recipients:
        recipient = row.as_core
        if set(recipient.forms) - {"model"} and not (recipient.one_file and recipient.forms == ("pdf",)):
            _check_names(recipient, fields)
        for sheet in sheets:
            settings = settings_for(recipient, (row.plot_settings or sheet.plot_settings).as_core)
            found = conflicts(settings, sheet.as_paper)
            if found:
                raise SheetError(f"{recipient.name}, {sheet.number}: {found[0]}")
        if "model" in recipient.forms and newest_version(project) is None:
            raise SheetError(f"{recipient.name} is sent the model, and there is none yet. Import one.")


def _check_names(recipient: CoreRecipient, fields: Iterable[dict[str, str]]) -> None:
    try:
        names_for(recipient.file_names, fields)
    except SheetError as error:
        # What a title block says beside these may still tell two names apart; the whole is tried when made.
        if "{" not in recipient.file_names or set(_tokens(recipient.file_names)) <= {
            "number", "title", "revision",
        }:  # fmt: skip
            raise SheetError(f"{recipient.name}: {error}") from error


def _tokens(pattern: str) -> list[str]:
    return [part.partition("}")[0] for part in pattern.split("{")[1:]]


def issue(job: Job, work: Work) -> None:
    """Make the issue of a job: freeze its sheets, make what each recipient gets, then record and send it."""
    order = job.issue_order
    project = job.project
    rows = list(order.sheets.select_related("plot_settings"))
    recipients = list(order.recipients.select_related("plot_settings"))
    if not rows or not recipients:
        raise SheetError("The sheets or the recipients of this issue have been deleted. Begin it again.")
    frozen = freeze_sheets(project, [row.pk for row in rows], work.step)
    errors = standing_errors(project, {str(each.row.pk) for each in frozen}, work)
    if errors and not order.reason.strip():
        many = "is 1 error" if len(errors) == 1 else f"are {len(errors)} errors"
        raise SheetError(
            f"There {many} on these sheets, the first: {errors[0].words} Put it right at the Check station, "
            "or say why the sheets are issued all the same."
        )
    folder = storage.temporary_path(".issue")
    try:
        made = _make(project, order, frozen, recipients, errors, folder, work)
        _record(project, order, frozen, made, errors, work)
    except OSError as error:
        if is_out_of_space(error):
            raise SheetError(f"{DISK_FULL} Nothing was issued; begin it again then.") from error
        raise
    finally:
        shutil.rmtree(folder, ignore_errors=True)


def _make(
    project: Project,
    order: IssueOrder,
    frozen: Sequence[Frozen],
    recipients: Sequence[Recipient],
    errors: Sequence[Finding],
    folder: Path,
    work: Work,
) -> list[Made]:
    """What each recipient gets, one after the other, under stored names."""
    states = {each.row.pk: store_state(each.sheet) for each in frozen}
    files = [storage.path_of(digest) for digest in states.values()]
    linework, pictures = map(paths, files_of(project, [each.sheet for each in frozen]))
    made = []
    for k, row in enumerate(recipients):
        recipient, own = row.as_core, folder / str(k)
        settings = [(row.plot_settings or each.row.plot_settings).as_core for each in frozen]
        about = order.name, project.practice
        names = work.run("issue_package", files, settings, recipient, linework, pictures, own, about)
        if "model" in recipient.forms:
            names = [*names, _model_of(project, own)]
        stored = [_stored(own / name, form) for name, form in names]
        transmittal = _transmittal(project, order, frozen, recipient, stored, errors, work, own)
        work.step(f"{recipient.name}: packing", k / len(recipients))
        archive = own / "archive"
        _pack(archive, [(name, digest) for name, _, _, digest in stored] + [(TRANSMITTAL, transmittal)])
        name = f"{file_name(f'{project.number} {order.name} {recipient.name}'.strip())}.zip"
        size = archive.stat().st_size
        packed = storage.store(archive)
        made.append(Made(recipient, settings, tuple(stored), transmittal, packed, name, size))
    return made


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
    project: Project,
    order: IssueOrder,
    frozen: Sequence[Frozen],
    recipient: CoreRecipient,
    files: Sequence[tuple[str, str, int, str]],
    errors: Sequence[Finding],
    work: Work,
    folder: Path,
) -> str:
    """The hash of the transmittal to a recipient."""
    remarks = f"Issued with {len(errors)} known errors: {order.reason}" if errors else ""
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
            for each in frozen
        ),
        tuple(SentFile(name, size, digest) for name, _, size, digest in files),
        remarks,
    )
    target = folder / TRANSMITTAL
    folder.mkdir(parents=True, exist_ok=True)
    info = FileInfo(f"Transmittal, {order.name}", project.practice)
    work.run("plot_sheets", transmittal_pages(about), {}, {}, target, "pdf", info)
    return storage.store(target)


def _pack(target: Path, files: Iterable[tuple[str, str]]) -> None:
    """A ZIP of stored files under their names."""
    with zipfile.ZipFile(target, "w") as archive:
        for name, digest in files:
            entry = zipfile.ZipInfo(name, _NO_DATE)
            entry.compress_type = zipfile.ZIP_DEFLATED
            with archive.open(entry, "w") as out, storage.path_of(digest).open("rb") as stream:
                shutil.copyfileobj(stream, out)


def _record(
    project: Project,
    order: IssueOrder,
    frozen: Sequence[Frozen],
    made: Sequence[Made],
    errors: Sequence[Finding],
    work: Work,
) -> None:
    """Write the record of an issue and send it; nothing is sent that is not recorded."""
    model = newest_version(project)
    with transaction.atomic():
        last = Issue.objects.filter(project=project).aggregate(last=Max("number"))["last"] or 0
        issued = Issue.objects.create(
            project=project,
            number=last + 1,
            name=order.name,
            purpose=order.purpose,
            date=order.date,
            reason=order.reason,
            findings=[each.words for each in errors],
            model_version=model,
            model_number=model.number if model else 0,
            issued_by=order.ordered_by.get_username() if order.ordered_by else "",
        )
        for k, each in enumerate(frozen):
            IssuedSheet.objects.create(
                issue=issued,
                sheet=each.row,
                position=k,
                number=each.sheet.number,
                title=each.sheet.field_values.get("title", ""),
                revision=each.sheet.revision,
                paper=each.sheet.paper_name,
                scale=each.sheet.field_values.get("scale", ""),
                fingerprint=each.fingerprint,
                state=store_state(each.sheet),
            )
        linework, pictures = files_of(project, [each.sheet for each in frozen])
        for kind, files in (("linework", linework), ("picture", pictures)):
            for key, file in files.items():
                KeptFile.objects.create(issue=issued, kind=kind, key=key, file=file)
        rows = [_record_recipient(issued, k, each) for k, each in enumerate(made)]
        prepared = [sending.prepare(row) for row in rows]
        order.issue = issued
        order.save()
    for row, ready in zip(rows, prepared, strict=True):
        work.progress(f"Sending to {row}", 0.95)
        sending.send(row, ready)


def _record_recipient(issued: Issue, position: int, made: Made) -> IssuedRecipient:
    row = IssuedRecipient.objects.create(
        issue=issued,
        position=position,
        spec=dump(made.recipient),
        settings=[dump(each) for each in made.settings],
        transmittal=made.transmittal,
        archive=made.archive,
        archive_name=made.archive_name,
        archive_size=made.archive_size,
    )
    for k, (name, form, size, digest) in enumerate(made.files):
        IssuedFile.objects.create(recipient=row, position=k, name=name, form=form, size=size, file=digest)
    return row


def order_remake(recipient: IssuedRecipient) -> Remake:
    """Have the files of a recipient made again from what was frozen."""
    job = jobs.start(recipient.issue.project, Job.Kind.REMAKE, f"{recipient.issue.name}, {recipient}")
    return Remake.objects.create(job=job, recipient=recipient)


def remake(job: Job, work: Work) -> None:
    """Make what a recipient was sent again, and say whether it is the same to the byte."""
    row = job.remake
    issued = row.recipient.issue
    sheets = list(issued.sheets.all())
    linework, pictures = map(paths, files_of_issue(sheets[0]))
    states = [storage.path_of(each.state) for each in sheets]
    settings = [parse_plot_settings(each) for each in row.recipient.settings]
    folder = storage.temporary_path(".issue")
    about = issued.name, thaw(states[0].read_bytes()).field_values.get("practice", "")
    try:
        names = work.run(
            "issue_package", states, settings, row.recipient.as_core, linework, pictures, folder, about
        )
        made = {}
        for name, _ in names:
            with (folder / name).open("rb") as stream:
                made[name] = storage.digest_of(stream)
    finally:
        shutil.rmtree(folder, ignore_errors=True)
    sent = {file.name: file.file for file in row.recipient.files.exclude(form="model")}
    row.same = made == sent
    row.save()
