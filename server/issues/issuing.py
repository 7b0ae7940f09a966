"""Making an issue: all of it, or nothing."""

from __future__ import annotations

import shutil
from collections.abc import Iterable, Sequence
from pathlib import Path
from typing import Any

from django.db import DatabaseError, transaction
from django.db.models import Max

from drafting.errors import SheetError
from drafting.issuing.file_names import names_for, tokens_of
from drafting.issuing.frozen import thaw
from drafting.issuing.recipients import Recipient as CoreRecipient
from drafting.issuing.recipients import settings_for
from drafting.plotting.settings import conflicts, parse_plot_settings
from drafting.schema import dump
from server.buildings.models import newest_version
from server.checks.services import checked_set, standing_errors
from server.common import storage
from server.common.space import DISK_FULL, is_out_of_space
from server.issues import sending
from server.issues.freezing import at_one_moment, files_of_issue, paths
from server.issues.models import (
    Issue,
    IssuedFile,
    IssuedRecipient,
    IssuedSheet,
    IssueOrder,
    KeptFile,
    Recipient,
    Remake,
    SentIssue,
)
from server.issues.packing import Moment, Package, about_of, freeze_moment, make_packages
from server.jobs import services as jobs
from server.jobs.models import Job
from server.jobs.runner import Work
from server.projects.models import Project
from server.sheets.models import Sheet
from server.sheets.shadow_areas import ready_areas

#: What is known of the fields of sheets before they are composed.
_KNOWN_BEFORE = {"number", "title", "revision"}


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
    """Refuse names that are known to be equal before anything is made; those that need more of a title block
    are tried then."""
    if tokens_of(recipient.file_names) <= _KNOWN_BEFORE:
        try:
            names_for(recipient.file_names, fields)
        except SheetError as error:
            raise SheetError(f"{recipient.name}: {error}") from error


def issue(job: Job, work: Work) -> None:
    """Make the issue of a job: freeze its sheets, make what each recipient gets, then record and send it."""
    order = job.issue_order
    project = job.project
    rows = list(order.sheets.select_related("plot_settings"))
    recipients = list(order.recipients.select_related("plot_settings"))
    if not rows or not recipients:
        raise SheetError("The sheets or the recipients of this issue have been deleted. Begin it again.")
    ready_areas(rows, work)
    looked_at = at_one_moment(project, lambda: checked_set(project, work))
    errors = standing_errors(project, looked_at, {str(row.pk) for row in rows}, work)
    if errors and not order.reason.strip():
        many = "is 1 error" if len(errors) == 1 else f"are {len(errors)} errors"
        raise SheetError(
            f"There {many} on these sheets, the first: {errors[0].words} Put it right at the Check station, "
            "or say why the sheets are issued all the same."
        )
    folder = storage.temporary_path(".issue")
    try:
        moment = freeze_moment(project, rows, looked_at, errors, work)
        made = make_packages(order, moment, recipients, folder, work)
        _record(order, moment, made, work)
    except (OSError, DatabaseError) as error:
        if is_out_of_space(error):
            raise SheetError(f"{DISK_FULL} Nothing was issued; begin it again then.") from error
        raise
    finally:
        shutil.rmtree(folder, ignore_errors=True)


def _record(order: IssueOrder, moment: Moment, made: Sequence[Package], work: Work) -> None:
    """Write the record of an issue and send it; nothing is sent that is not recorded."""
    prepared: list[Path | None] = []
    try:
        for each in made:
            files = [(name, digest) for name, _, _, digest in each.files]
            files += [(sending.TRANSMITTAL, each.transmittal), (each.archive_name, each.archive)]
            prepared.append(sending.prepare(each.recipient.delivery, files))
        rows = _record_all(order, moment, made)
    except BaseException:
        for ready in prepared:
            sending.forget(ready)
        raise
    for row, ready in zip(rows, prepared, strict=True):
        work.progress(f"Sending to {row}", 0.95)
        sending.send(row, ready)


def is_recorded(job: Job) -> bool:
    """Whether the issue of a job is recorded: then it is made, whatever becomes of the job."""
    return IssueOrder.objects.filter(job=job, issue__isnull=False).exists()


def _record_all(order: IssueOrder, moment: Moment, made: Sequence[Package]) -> list[IssuedRecipient]:
    """Write all rows of an issue, or none."""
    project = order.job.project
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
            findings=[each.words for each in moment.errors],
            model_version=model,
            model_number=model.number if model else 0,
            issued_by=order.ordered_by.get_username() if order.ordered_by else "",
        )
        for k, each in enumerate(moment.sheets):
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
                state=each.state,
            )
        for kind, files in (("linework", moment.linework), ("picture", moment.pictures)):
            for key, file in files.items():
                KeptFile.objects.create(issue=issued, kind=kind, key=key, file=file)
        rows = [_record_recipient(issued, k, each) for k, each in enumerate(made)]
        order.issue = issued
        order.save()
    return rows


def _record_recipient(issued: Issue, position: int, made: Package) -> IssuedRecipient:
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
    SentIssue.objects.create(recipient=row)
    for k, (name, form, size, digest) in enumerate(made.files):
        IssuedFile.objects.create(recipient=row, position=k, name=name, form=form, size=size, file=digest)
    return row


@transaction.atomic
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
    about = about_of(issued.name, [thaw(state.read_bytes()) for state in states[:1]])
    try:
        names = work.run(
            "sheets:issue_package", states, settings, row.recipient.as_core, linework, pictures, folder, about
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
