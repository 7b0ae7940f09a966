"""The page behind a link by which a recipient fetches what was issued to them; it needs no account."""

from __future__ import annotations

from django.db.models import F
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils import timezone

from drafting.issuing.transmittal import size_words
from drafting.plotting.files import MEDIA_TYPES
from server.accounts.models import digest_of
from server.common.responses import stored_file
from server.issues.models import IssuedRecipient, SentIssue
from server.issues.sending import TRANSMITTAL

GONE = "This link has ended or was withdrawn. Ask whoever sent it for another."


def _found(secret: str) -> IssuedRecipient | None:
    open_now = SentIssue.objects.filter(state=SentIssue.State.SENT, until__gt=timezone.now())
    row = open_now.filter(digest=digest_of(secret)).select_related("recipient__issue__project")
    sent = row.first()
    return sent.recipient if sent else None


def page(request: HttpRequest, secret: str) -> HttpResponse:
    """What was issued, to be fetched."""
    recipient = _found(secret)
    if recipient is None:
        return render(request, "issues/delivered.html", {"gone": GONE}, status=404)
    files = [(file.pk, file.name, size_words(file.size), file.file) for file in recipient.files.all()]
    about = {
        "issue": recipient.issue,
        "recipient": recipient.as_core,
        "sheets": recipient.issue.sheets.all(),
        "files": files,
        "archive": size_words(recipient.archive_size),
    }
    response = render(request, "issues/delivered.html", about)
    response.headers["Cache-Control"] = "no-store"
    response.headers["Referrer-Policy"] = "no-referrer"
    return response


def file(request: HttpRequest, secret: str, which: str) -> FileResponse:
    """One of the files, their archive, or the transmittal."""
    recipient = _found(secret)
    if recipient is None:
        raise Http404(GONE)
    SentIssue.objects.filter(recipient=recipient).update(fetched=F("fetched") + 1)
    if which == "archive":
        return stored_file(recipient.archive, "application/zip", recipient.archive_name)
    if which == "transmittal":
        return stored_file(recipient.transmittal, "application/pdf", TRANSMITTAL)
    row = next((row for row in recipient.files.all() if str(row.pk) == which), None)
    if row is None:
        raise Http404(GONE)
    return stored_file(row.file, MEDIA_TYPES.get(row.form, "application/octet-stream"), row.name)
