"""How what was issued reaches its recipients: a folder, a mail, or a link. Mail goes through Django's mail,
which writes it into an outbox of files unless another service is set."""

from __future__ import annotations

import secrets
import shutil
import uuid
from base64 import urlsafe_b64encode
from collections.abc import Iterable
from datetime import timedelta
from pathlib import Path

from django.conf import settings
from django.core.mail import EmailMessage
from django.utils import timezone
from django.utils.crypto import salted_hmac

from drafting.issuing.recipients import Delivery
from drafting.plotting.files import file_name
from server.accounts.models import digest_of
from server.common import storage
from server.common.problems import logged
from server.common.space import DISK_FULL, is_out_of_space
from server.issues.models import IssuedRecipient, SentIssue
from server.jobs.models import Job

HOW: dict[Delivery, str] = {"folder": "In a folder", "mail": "By mail", "link": "By a link"}
#: A mail holds no more than this; what is larger is fetched by a link. Bytes.
MAX_MAIL = 15 * 1024 * 1024
TRANSMITTAL = "Transmittal.pdf"


def folder_of(recipient: IssuedRecipient) -> Path:
    """Where the files of a recipient are put."""
    issue = recipient.issue
    project = file_name(f"{issue.project.number} {issue.project.name}".strip()) or str(issue.project_id)
    named = file_name(f"{issue.number:03} {issue.date} {issue.name}")
    own = file_name(recipient.as_core.name) or "Recipient"
    return Path(settings.DELIVERED) / project / named / f"{recipient.position + 1} {own}"


def prepare(delivery: Delivery, files: Iterable[tuple[str, str]]) -> Path | None:
    """Copy stored files, by name and hash, that go into a folder, beside its place: so a full disk is known
    before anything is recorded. Whoever does not send them deletes them."""
    if delivery != "folder":
        return None
    part = Path(settings.DELIVERED) / f".{uuid.uuid4().hex}"
    part.mkdir(parents=True)
    try:
        for name, digest in files:
            shutil.copyfile(storage.path_of(digest), part / name)
    except BaseException:
        forget(part)
        raise
    return part


def forget(prepared: Path | None) -> None:
    """Delete what was prepared and is not sent."""
    if prepared is not None:
        shutil.rmtree(prepared, ignore_errors=True)


def send(recipient: IssuedRecipient, prepared: Path | None) -> SentIssue:
    """Send what was recorded. What goes wrong is said in the row, and can be tried again."""
    row, _ = SentIssue.objects.get_or_create(recipient=recipient)
    row.state, row.message, row.place, row.nonce, row.digest = SentIssue.State.SENT, "", "", "", ""
    try:
        if recipient.as_core.delivery == "folder":
            row.place = str(_into_folder(recipient, prepared))
        elif recipient.as_core.delivery == "mail":
            row.place = recipient.as_core.address
            _mail(recipient, row)
        else:
            open_link(recipient, row)
    except Exception as error:  # a mail service may fail in its own ways
        row.state = SentIssue.State.FAILED
        row.message = DISK_FULL if is_out_of_space(error) else logged("sending to %s", recipient)
    row.save()
    return row


def send_again(recipient: IssuedRecipient) -> SentIssue:
    """Send once more what did not arrive, or was withdrawn."""
    files = [(file.name, file.file) for file in recipient.files.all()]
    files += [(TRANSMITTAL, recipient.transmittal), (recipient.archive_name, recipient.archive)]
    return send(recipient, prepare(recipient.as_core.delivery, files))


def send_waiting() -> None:
    """Send what was recorded and not sent, for whoever was about to was stopped. A mail that had gone out
    just before that goes out twice: better so than never."""
    waiting = SentIssue.objects.filter(state=SentIssue.State.WAITING)
    for row in waiting.exclude(recipient__issue__order__job__state__in=Job.ACTIVE):
        send_again(row.recipient)


def withdraw(row: SentIssue) -> None:
    """End a link at once."""
    row.state, row.nonce, row.digest, row.until = SentIssue.State.WITHDRAWN, "", "", None
    row.save()


def _into_folder(recipient: IssuedRecipient, prepared: Path | None) -> Path:
    place = folder_of(recipient)
    if prepared is None:
        return place
    if place.exists():
        shutil.rmtree(place)
    place.parent.mkdir(parents=True, exist_ok=True)
    prepared.replace(place)
    return place.relative_to(settings.DELIVERED)


def open_link(recipient: IssuedRecipient, row: SentIssue) -> str:
    """Have a link lead to what a recipient is sent from now on; one that there was leads nowhere then."""
    row.nonce = secrets.token_hex(16)
    row.until = timezone.now() + timedelta(days=recipient.as_core.days)
    secret = secret_of(row)
    row.digest = digest_of(secret)
    return secret


def secret_of(row: SentIssue) -> str:
    """The secret of the link by which something is fetched; blank for none. It is worked out with the key of
    this installation, which no backup has."""
    if not row.nonce:
        return ""
    made = salted_hmac("delivered", f"{row.pk} {row.nonce}", algorithm="sha256").digest()
    return urlsafe_b64encode(made).decode().rstrip("=")


def _mail(recipient: IssuedRecipient, row: SentIssue) -> None:
    about, issue = recipient.as_core, recipient.issue
    count = issue.sheets.count()
    lines = [
        f"{about.name},",
        "",
        f"{issue.project.practice or 'We'} sends you {count} {'sheet' if count == 1 else 'sheets'} of "
        f"{issue.project.name}, issued for {issue.purpose.lower()} on {issue.date}.",
        "The transmittal says what they are, in which revision, and the checksum of each file.",
    ]
    message = EmailMessage(f"{issue.project.name}: {issue.name}", "", None, [about.address])
    message.attach(TRANSMITTAL, storage.path_of(recipient.transmittal).read_bytes(), "application/pdf")
    if recipient.archive_size <= MAX_MAIL:
        data = storage.path_of(recipient.archive).read_bytes()
        message.attach(recipient.archive_name, data, "application/zip")
    else:
        token = open_link(recipient, row)
        lines += ["", f"They are fetched here: {settings.ADDRESS}/delivered/{token}/"]
    message.body = "\n".join(lines)
    message.send()
