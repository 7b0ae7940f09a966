"""Issuing as a Django app."""

from django.apps import AppConfig


class IssuesConfig(AppConfig):
    name = "server.issues"

    def ready(self) -> None:
        from server.checks.services import register_checked, register_issued
        from server.common.pruning import register_files, register_task
        from server.issues import comparisons, days, issuing, records, sending
        from server.issues import models as rows
        from server.jobs.models import Job
        from server.jobs.runner import register
        from server.jobs.workers import register_sweep
        from server.projects.services import register_keeper
        from server.sheets.composing import register_issue_columns

        register(Job.Kind.ISSUE, issuing.issue, is_made=issuing.is_recorded)
        register_sweep(sending.send_waiting)
        register(Job.Kind.REMAKE, issuing.remake)
        register(Job.Kind.COMPARE, comparisons.compare)
        register_files(rows.IssuedSheet, "state", of="issue__project")
        register_files(rows.KeptFile, "file", of="issue__project")
        register_files(rows.IssuedRecipient, "transmittal", "archive", of="issue__project")
        register_files(rows.IssuedFile, "file", of="recipient__issue__project")
        register_files(rows.Compared, "before", "after", "over", "printed", of="job__project")
        register_files(rows.DayState, "state", of="sheet__project")
        register_files(rows.DayFile, "file", of="of__sheet__project")
        register_task(days.forget)
        register_checked(days.store)
        register_issued(records.last_issued)
        register_keeper(records.why_kept)
        register_issue_columns(records.issue_columns)
