"""Recipients as rows, and the revisions that sheets are offered."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from drafting.sheets.revision_schemes import RevisionScheme
from server.checks.models import CheckRun
from server.checks.services import state_of_set
from server.common.rows import Memo, RowService
from server.issues.models import Recipient, parse_recipient
from server.issues.records import last_issued
from server.projects.models import Project
from server.sheets.models import Sheet
from server.sheets.services import next_position, register_of


class RecipientService(RowService[Recipient]):
    model = Recipient

    def prepare(self, values: dict[str, Any], memo: Memo) -> None:
        if "position" not in values:
            values["position"] = next_position(Recipient.objects.filter(project=values["project"]))

    def check(self, row: Recipient, changed: set[str], memo: Memo) -> None:
        parse_recipient(row.spec)


recipient_service = RecipientService()


def revision_offers(project: Project, sheets: Sequence[Sheet], purpose: str) -> list[dict[str, Any]]:
    """The next revision of each of some sheets, and whether it differs from what was issued of it. That is
    known from the last check of the set as long as nothing has changed since."""
    scheme: RevisionScheme = register_of(project).revision_scheme_as_core
    issued = last_issued(project)
    run = CheckRun.objects.filter(project=project).first()
    # What was never issued differs in any case.
    compared = run is not None and any(str(sheet.pk) in issued for sheet in sheets)
    known = run.fingerprints if run and compared and run.state == state_of_set(project) else {}
    offers = []
    for sheet in sheets:
        had = [revision["revision"] for revision in sheet.revisions]
        revision, fingerprint = issued.get(str(sheet.pk), ("", ""))
        now = known.get(str(sheet.pk))
        offers.append(
            {
                "sheet": sheet.pk,
                "revision": scheme.next_revision(had, purpose),
                "issued": revision,
                "differs": True if not fingerprint else None if now is None else now != fingerprint,
            }
        )
    return offers
