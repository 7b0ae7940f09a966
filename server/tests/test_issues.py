"""Issuing: all of it or nothing, each recipient as they wish, frozen for ever, and known again."""

import hashlib
import io
import zipfile
from datetime import timedelta
from email import message_from_bytes
from unittest import mock

import openpyxl
import pikepdf
from django.conf import settings
from django.db import DatabaseError
from django.db.models import F
from django.test import override_settings
from django.utils import timezone
from PIL import Image

from drafting.errors import SheetError
from drafting.tests.pdf_reading import page_sizes, text
from server.buildings.models import ModelVersion
from server.checks import services as checking
from server.common.pruning import file_columns, prune
from server.issues import freezing, sending
from server.issues.days import KEPT as KEPT_DAYS
from server.issues.models import (
    Compared,
    DayState,
    Issue,
    IssuedFile,
    IssuedRecipient,
    IssuedSheet,
    KeptFile,
    Remake,
    SentIssue,
)
from server.jobs.models import Job
from server.jobs.runner import end_lost
from server.projects.models import Project
from server.sheets.models import ShadedPicture, Sheet
from server.tests.api_case import ApiCase
from server.tests.snapshots import once

TODAY = timezone.localdate().isoformat()


class IssueCase(ApiCase):
    """Two sheets with a drawing each, and no rule that finds an error in them."""

    begins_with = "two sheets"

    def setUp(self):
        super().setUp()
        delivered = override_settings(
            DELIVERED=self.data / "delivered", EMAIL_FILE_PATH=self.data / "outbox",
            EMAIL_BACKEND="django.core.mail.backends.filebased.EmailBackend",
        )  # fmt: skip
        delivered.enable()
        self.addCleanup(delivered.disable)
        self.project, self.sheets, self.secret = once(self.begins_with, self.made)
        self.viewports = self.call("get", f"viewports/?project={self.project}")

    def made(self):
        """The project and its sheets, and what else tests begin with, as `begins_with` says."""
        self.project = self.project_with_model()
        sheets = [self.sheet(name) for name in ("South elevation", "North elevation")]
        return self.project, sheets, ""

    def sheet(self, view):
        sheet = self.call(
            "post", "sheets/", {"project": self.project, "title": view, "creator": "I", "drawn_on": "x"}, 201
        )
        given = {"sheet": sheet["id"], "view": self.view_named(self.project, view)["id"]}
        self.call("post", "viewports/", given, 201)
        return self.call("get", f"sheets/{sheet['id']}/")

    def recipient(self, name, **spec):
        given = {"project": self.project, "spec": {"name": name, **spec}}
        return self.call("post", "recipients/", given, 201)["id"]

    def order(self, recipients, status=202, **given):
        body = {
            "project": self.project, "name": "First issue", "purpose": "Comment", "date": TODAY,
            "sheets": [s["id"] for s in self.sheets], "recipients": recipients,
        }  # fmt: skip
        return self.call("post", "issues/", {**body, **given}, status)

    def issued(self, recipients, **given):
        order = self.order(recipients, **given)
        job = self.call("get", f"jobs/{order['job']['id']}/")
        self.assertEqual(job["state"], "done", job["message"])
        return self.call("get", f"issues/?project={self.project}")[-1]

    def content(self, path):
        return b"".join(self.client.get(path).streaming_content)

    def change(self, sheet, **values):
        now = self.call("get", f"sheets/{sheet['id']}/")
        return self.call("patch", f"sheets/{sheet['id']}/", {**values, "version": now["version"]})


class IssueTests(IssueCase):
    def test_each_recipient_gets_their_formats_named_as_they_wish(self):
        issue = self.issued([
            self.recipient("Anna", organisation="Voss Builders"),
            self.recipient(
                "Bo", forms=["dxf", "svg", "model"], one_file=False, file_names="{number} {title}"
            ),
        ])  # fmt: skip
        anna, bo = issue["recipients"]
        self.assertEqual([f["name"] for f in anna["files"]], ["First issue.pdf"])
        wanted = {f"{s['number']} {s['title']}.{e}" for s in self.sheets for e in ("dxf", "svg")}
        self.assertEqual({f["name"] for f in bo["files"]}, wanted | {"house.ifc"})
        pdf = self.content(f"/api/issued-files/{anna['files'][0]['id']}/file/")
        self.assertEqual(len(page_sizes(pdf)), 2)
        self.assertEqual(hashlib.sha256(pdf).hexdigest(), anna["files"][0]["checksum"])
        model = next(f for f in bo["files"] if f["form"] == "model")
        sent = self.content(f"/api/issued-files/{model['id']}/file/")
        self.assertEqual(hashlib.sha256(sent).hexdigest(), ModelVersion.objects.get().source)

    def test_a_recipient_has_plot_settings_of_their_own(self):
        settings = {"project": self.project, "name": "Grey", "spec": {"colours": "grey", "resolution": 72}}
        own = self.call("post", "plot-settings/", settings, 201)["id"]
        anna = self.recipient("Anna", forms=["png"])
        self.call("patch", f"recipients/{anna}/", {"plot_settings": own, "version": 1})
        issue = self.issued([anna], sheets=[self.sheets[0]["id"]])
        (file,) = issue["recipients"][0]["files"]
        picture = Image.open(io.BytesIO(self.content(f"/api/issued-files/{file['id']}/file/")))
        self.assertAlmostEqual(picture.info["dpi"][0], 72, delta=1)

    def test_what_is_issued_is_one_moment_of_the_set_though_somebody_edits(self):
        # Each time a sheet has been composed, the other gets another title: until others have to wait.
        titles = iter(["One", "Two", "Three"])
        whole = checking.composed

        def composed(row, *given):
            made = whole(row, *given)
            changed = {"title": next(titles, "Three"), "version": F("version") + 1}
            Sheet.objects.filter(pk=self.sheets[0]["id"]).update(**changed)
            return made

        project = Project.objects.get(pk=self.project)
        with mock.patch.object(checking, "composed", composed), mock.patch.object(freezing, "TRIES", 2):
            found = freezing.at_one_moment(project, lambda: checking.checked_set(project))
        found = [each.sheet.field_values["title"] for each in found.sheets]
        self.assertEqual(found, ["Three", "North elevation"])

    def test_a_backup_holds_what_was_issued(self):
        self.issued([self.recipient("Anna", forms=["pdf", "model"])])
        named = [row.file for model in (IssuedFile, KeptFile) for row in model.objects.all()]
        named += [row.state for row in IssuedSheet.objects.all()]
        named += [
            digest for row in IssuedRecipient.objects.all() for digest in (row.transmittal, row.archive)
        ]
        kept = {path.name for path in self.files_kept()}
        self.assertLessEqual(set(named), kept)
        columns = set(file_columns())
        for model, column in ((IssuedFile, "file"), (KeptFile, "file"), (IssuedSheet, "state"),
                              (IssuedRecipient, "archive"), (IssuedRecipient, "transmittal")):  # fmt: skip
            self.assertIn((model._meta.db_table, column), columns)

    def test_a_transmittal_says_what_was_sent_and_the_folder_holds_it(self):
        issue = self.issued([self.recipient("Anna", organisation="Voss Builders")])
        (anna,) = issue["recipients"]
        said = text(self.content(f"/api/issued-recipients/{anna['id']}/transmittal/"))
        for words in (
            "Voss Builders",
            "First issue",
            "Comment",
            anna["files"][0]["checksum"],
        ):
            self.assertIn(words, " ".join(said.split()))
        folder = settings.DELIVERED / anna["sent"]["place"]
        self.assertEqual(
            sorted(path.name for path in folder.iterdir()),
            sorted(["First issue.pdf", "Transmittal.pdf", anna["archive_name"]]),
        )
        with zipfile.ZipFile(folder / anna["archive_name"]) as archive:
            self.assertEqual(sorted(archive.namelist()), ["First issue.pdf", "Transmittal.pdf"])

    def test_mail_waits_in_the_outbox_with_transmittal_and_files(self):
        issue = self.issued([self.recipient("Anna", delivery="mail", address="anna@builders.example")])
        self.assertEqual(issue["recipients"][0]["sent"]["state"], "sent")
        (mail,) = (self.data / "outbox").iterdir()
        message = message_from_bytes(mail.read_bytes())
        self.assertEqual(message["To"], "anna@builders.example")
        names = [part.get_filename() for part in message.walk() if part.get_filename()]
        self.assertEqual(names, ["Transmittal.pdf", issue["recipients"][0]["archive_name"]])

    def test_a_link_gives_the_files_without_an_account_until_it_is_withdrawn(self):
        issue = self.issued([self.recipient("Anna", delivery="link", days=3)])
        (anna,) = issue["recipients"]
        self.client.logout()
        page = f"/delivered/{anna['sent']['place']}/"
        self.assertContains(self.client.get(page), "First issue.pdf")
        self.assertEqual(self.content(f"{page}archive/")[:2], b"PK")
        self.assertEqual(self.client.get(page[:-5] + "/").status_code, 404)
        self.assertEqual(self.client.get("/delivered//").status_code, 404)
        self.client.force_login(self.user)
        self.assertEqual(self.call("get", f"issues/{issue['id']}/")["recipients"][0]["sent"]["fetched"], 1)
        self.call("post", f"issued-recipients/{anna['id']}/withdraw/")
        self.assertContains(self.client.get(page), "has ended or was withdrawn", status_code=404)
        self.assertEqual(self.client.get(f"{page}archive/").status_code, 404)
        again = self.call("post", f"issued-recipients/{anna['id']}/send/")["recipients"][0]["sent"]
        self.assertNotEqual(again["place"], anna["sent"]["place"])
        SentIssue.objects.update(until=timezone.now())
        self.assertEqual(self.client.get(f"/delivered/{again['place']}/").status_code, 404)

    def test_mail_that_fails_is_said_and_can_be_sent_again(self):
        with mock.patch.object(sending, "EmailMessage", side_effect=OSError("no route")):
            issue = self.issued([self.recipient("Anna", delivery="mail", address="a@b.example")])
        (anna,) = issue["recipients"]
        self.assertEqual(anna["sent"]["state"], "failed")
        self.assertIn("reference", anna["sent"]["message"])
        again = self.call("post", f"issued-recipients/{anna['id']}/send/")["recipients"][0]["sent"]
        self.assertEqual((again["state"], again["message"]), ("sent", ""))

    def test_an_issue_that_is_stopped_before_it_is_sent_is_made_and_sent_once(self):
        """What is recorded is done: trying again would make a second."""
        for spec in ({}, {"delivery": "link"}, {"delivery": "mail", "address": "a@b.example"}):
            with self.subTest(spec):
                stopped = mock.patch.object(sending, "send", side_effect=KeyboardInterrupt)
                with stopped, self.assertRaises(KeyboardInterrupt):
                    self.order([self.recipient("Anna", **spec)])
                job = Job.objects.get(kind="issue", state="running")
                sending.send_waiting()  # its worker may still be at it
                issue = self.call("get", f"issues/?project={self.project}")[-1]
                self.assertEqual(issue["recipients"][0]["sent"]["state"], "waiting")
                end_lost(job)
                job.refresh_from_db()
                self.assertEqual((job.state, job.message), ("done", ""))
                sending.send_waiting()
                issue = self.call("get", f"issues/{issue['id']}/")
                sent = issue["recipients"][0]["sent"]
                self.assertEqual((sent["state"], bool(sent["place"])), ("sent", True))
                before = SentIssue.objects.get(recipient=issue["recipients"][0]["id"]).at
                sending.send_waiting()
                self.assertEqual(SentIssue.objects.get(recipient=issue["recipients"][0]["id"]).at, before)
        self.assertEqual(Issue.objects.count(), 3)

    def test_who_has_the_database_alone_has_no_link(self):
        issue = self.issued([self.recipient("Anna", delivery="link")])
        secret = issue["recipients"][0]["sent"]["place"]
        row = SentIssue.objects.get()
        self.assertNotIn(secret, [str(value) for value in vars(row).values()])
        with override_settings(SECRET_KEY="another"):
            self.assertNotEqual(sending.secret_of(row), secret)

    def test_what_cannot_be_issued_is_refused_before_anything_is_made(self):
        anna = self.recipient("Anna")
        for given, words in (
            ({"sheets": []}, "Tick"), ({"recipients": []}, "Tick a recipient"), ({"name": " "}, "name"),
            ({"purpose": ""}, "issued for"), ({"date": "16.3.2026"}, "year-month-day"),
        ):  # fmt: skip
            recipients = given.pop("recipients", [anna])
            with self.subTest(words):
                self.assertIn(words, self.order(recipients, 400, **given)["detail"])
        for spec, words in (
            ({"forms": []}, "nothing yet"), ({"file_names": "../{number}"}, "path"),
            ({"delivery": "mail"}, "mail address"), ({"name": ""}, "1"),
        ):  # fmt: skip
            body = {"project": self.project, "spec": {"name": "Bo", **spec}}
            self.assertIn(words, self.call("post", "recipients/", body, 400)["detail"])
        same = self.recipient("Bo", one_file=False, file_names="{revision}x{revision}")
        self.assertIn("Put {number} in it", self.order([same], 400)["detail"])
        self.assertFalse(Issue.objects.exists())

    def test_another_date_than_that_of_the_clock_that_goes_back_is_refused(self):
        anna = self.recipient("Anna")
        self.issued([anna])
        self.assertIn("earlier", self.order([anna], 400, date="2020-01-01")["detail"])

    def test_errors_want_a_reason_which_the_record_keeps(self):
        anna = self.recipient("Anna")
        self.change(self.sheets[0], title="")
        order = self.order([anna], reason="")
        job = self.call("get", f"jobs/{order['job']['id']}/")
        self.assertEqual(job["state"], "failed")
        self.assertIn("say why", job["message"])
        self.assertFalse(Issue.objects.exists())
        issue = self.issued([anna], reason="The client knows")
        self.assertEqual(issue["reason"], "The client knows")
        self.assertTrue(any("title" in words for words in issue["findings"]))

    def test_a_full_disk_in_the_middle_leaves_nothing_issued(self):
        anna, bo = self.recipient("Anna"), self.recipient("Bo", forms=["svg"], one_file=False)
        full = OSError(28, "No space left on device")
        with mock.patch("server.issues.sending.shutil.copyfile", side_effect=[*[None] * 4, full]):
            order = self.order([anna, bo])
        job = self.call("get", f"jobs/{order['job']['id']}/")
        self.assertEqual(job["state"], "failed")
        self.assertIn("begin it again", job["message"])
        for model in (Issue, IssuedSheet, IssuedFile, KeptFile):
            self.assertFalse(model.objects.exists())
        self.assertEqual(list(settings.DELIVERED.rglob("*")), [])
        self.assertEqual(len(self.issued([anna, bo])["recipients"]), 2)

    def test_cancelled_while_sheets_are_composed_nothing_is_issued(self):
        whole = checking.composed

        def composed(row, *given):
            Job.objects.filter(kind="issue").update(cancel_wanted=True)
            return whole(row, *given)

        with (
            mock.patch.object(checking, "composed", composed),
            mock.patch("server.jobs.runner.CANCEL_INTERVAL", 0.0),
        ):
            order = self.order([self.recipient("Anna")])
        self.assertEqual(self.call("get", f"jobs/{order['job']['id']}/")["state"], "cancelled")
        self.assertFalse(Issue.objects.exists())


class RecordTests(IssueCase):
    def test_an_intact_record_is_the_same_also_where_a_sheet_says_another_practice(self):
        self.change(self.sheets[0], overrides={"practice": "Marram and Daughters"})
        issue = self.issued([self.recipient("Anna")])
        Project.objects.update(practice="Since renamed")
        made = self.call("post", f"issued-recipients/{issue['recipients'][0]['id']}/remake/", None, 202)
        self.assertTrue(self.call("get", f"remakes/{made['id']}/")["same"])

    def test_what_was_issued_can_be_neither_changed_nor_deleted(self):
        issue = self.issued([self.recipient("Anna")])
        path = f"issues/{issue['id']}/"
        for method, body in (("patch", {"name": "Other"}), ("delete", None)):
            self.assertIn("kept as it was", self.call(method, path, body, 400)["detail"])
        row = Issue.objects.get()
        row.name = "Other"
        for alter in (row.save, row.delete, Issue.objects.all().delete, row.sheets.get(position=0).delete):
            with self.assertRaises(SheetError):
                alter()
        self.assertIn("Archive", self.call("delete", f"projects/{self.project}/", status=400)["detail"])

    def test_a_deleted_sheet_and_recipient_leave_the_record_whole(self):
        anna = self.recipient("Anna")
        issue = self.issued([anna])
        self.call("delete", f"sheets/{self.sheets[0]['id']}/", status=204)
        self.call("delete", f"recipients/{anna}/", status=204)
        after = self.call("get", f"issues/{issue['id']}/")
        self.assertIsNone(after["sheets"][0].pop("sheet"))
        issue["sheets"][0].pop("sheet")
        self.assertEqual(after["sheets"], issue["sheets"])
        self.assertEqual(after["recipients"], issue["recipients"])

    def test_it_is_made_again_to_the_byte_after_sheets_and_model_have_changed(self):
        issue = self.issued([self.recipient("Anna", forms=["pdf", "dxf", "svg"], colours="grey")])
        self.change(self.sheets[0], title="Another")
        self.import_model(self.project, self.ifc(length=5600.0))
        with mock.patch("server.common.pruning.is_old", return_value=True):
            prune()
        made = self.call("post", f"issued-recipients/{issue['recipients'][0]['id']}/remake/", status=202)
        self.assertIs(self.call("get", f"remakes/{made['id']}/")["same"], True)

    def test_pictures_are_issued_too_and_made_again_to_the_byte_when_they_are_gone(self):
        (row,) = (v for v in self.viewports if str(v["sheet"]) == str(self.sheets[0]["id"]))
        shaded = {"appearance": {"show": "shaded"}, "version": row["version"]}
        self.call("patch", f"viewports/{row['id']}/", shaded)
        anna = self.recipient("Anna", forms=["pdf"])
        issue = self.issued([anna])
        pdf = self.content(f"/api/issued-files/{issue['recipients'][0]['files'][0]['id']}/file/")
        with pikepdf.open(io.BytesIO(pdf)) as opened:
            self.assertEqual(len(opened.pages[0].images), 1)
        lines = {"appearance": {"show": "lines"}, "version": row["version"] + 1}
        self.call("patch", f"viewports/{row['id']}/", lines)
        ShadedPicture.objects.all().delete()
        with mock.patch("server.common.pruning.is_old", return_value=True):
            prune()
        made = self.call("post", f"issued-recipients/{issue['recipients'][0]['id']}/remake/", status=202)
        self.assertIs(self.call("get", f"remakes/{made['id']}/")["same"], True)

    def test_nobody_else_sees_it(self):
        issue = self.issued([self.recipient("Anna")])
        (anna,) = issue["recipients"]
        from django.contrib.auth import get_user_model

        self.client.force_login(get_user_model().objects.create_user("olaf", password="x"))
        for path in (
            f"issues/{issue['id']}/", f"issued-files/{anna['files'][0]['id']}/file/",
            f"issued-recipients/{anna['id']}/archive/", f"issue-register/?project={self.project}",
        ):  # fmt: skip
            self.assertIn(self.client.get(f"/api/{path}").status_code, (400, 404))

    def test_the_register_has_each_sheet_by_each_issue(self):
        anna = self.recipient("Anna")
        self.change(self.sheets[0], revisions=[{"revision": "P01"}])
        self.issued([anna])
        self.change(self.sheets[0], revisions=[{"revision": "P01"}, {"revision": "P02"}])
        self.issued([anna], name="Second issue", purpose="Tender", sheets=[self.sheets[0]["id"]])
        response = self.client.get(f"/api/issue-register/?project={self.project}&form=xlsx")
        page = openpyxl.load_workbook(io.BytesIO(response.content)).active
        rows = [[cell.value for cell in row] for row in page.iter_rows()]
        self.assertEqual(rows[0][3:], ["First issue", "Second issue"])
        self.assertEqual(rows[3][2:], ["P02", "P01", "P02"])
        self.assertEqual(rows[4][3:], ["–", None])
        pdf = self.client.get(f"/api/issue-register/?project={self.project}&form=pdf").content
        self.assertIn("Second issue", text(pdf))

    def test_the_list_of_drawings_has_columns_of_issues(self):
        self.change(self.sheets[0], revisions=[{"revision": "P01"}])
        self.issued([self.recipient("Anna")])
        self.change(self.sheets[1], drawing_list={"x": 100.0, "y": 150.0, "issues": 3})
        display = self.call("get", f"sheets/{self.sheets[1]['id']}/display/")
        said = [item.get("text") for item in display["items"] if item.get("layer") == "List of drawings"]
        self.assertIn(TODAY, said)
        self.assertIn("Comment", said)
        self.assertEqual(said.count("P01"), 2)


class RevisionTests(IssueCase):
    def offers(self, purpose="Comment"):
        body = {"project": self.project, "sheets": [s["id"] for s in self.sheets], "purpose": purpose}
        return self.call("post", "revision-offers/", body)

    def test_the_next_revision_is_offered_by_purpose_and_scheme(self):
        self.change(self.sheets[0], revisions=[{"revision": "P01"}])
        self.assertEqual([o["revision"] for o in self.offers()], ["P02", "P01"])
        self.assertEqual([o["revision"] for o in self.offers("Construction")], ["C01", "C01"])
        (register,) = self.call("get", f"registers/?project={self.project}")
        scheme = {"series": [{"counting": "letters"}]}
        given = {"revision_scheme": scheme, "version": register["version"]}
        self.call("patch", f"registers/{register['id']}/", given)
        self.assertEqual([o["revision"] for o in self.offers()], ["A", "A"])
        given = {"revision_scheme": {"series": []}, "version": register["version"] + 1}
        self.assertIn("series", self.call("patch", f"registers/{register['id']}/", given, 400)["detail"])

    def test_it_is_known_which_sheets_differ_from_what_was_issued(self):
        self.assertEqual([o["differs"] for o in self.offers()], [True, True])
        self.issued([self.recipient("Anna")])
        self.assertEqual([o["differs"] for o in self.offers()], [None, None])
        self.call("post", "checks/", {"project": self.project}, 202)
        self.assertEqual([o["differs"] for o in self.offers()], [False, False])
        self.change(self.sheets[0], title="Another")
        self.call("post", "checks/", {"project": self.project}, 202)
        self.assertEqual([o["differs"] for o in self.offers()], [True, False])
        found = self.call("get", f"checks/?project={self.project}")["findings"]
        raised = [f for f in found if f["rule"] == "revision-not-raised"]
        self.assertEqual([f["sheet"] for f in raised], [self.sheets[0]["id"]])


class OrderTests(IssueCase):
    def test_no_worker_takes_an_order_before_all_of_it_is_there(self):
        """What is done with a job is written with it, or neither is."""
        issue = self.issued([self.recipient("Anna")])
        jobs = set(Job.objects.values_list("pk", flat=True))
        sheet = {"old_issued": issue["sheets"][0]["id"], "new_sheet": self.sheets[0]["id"]}
        orders = {
            Compared: ("comparisons/", sheet),
            Remake: (f"issued-recipients/{issue['recipients'][0]['id']}/remake/", None),
        }
        for made, (path, given) in orders.items():
            lost = mock.patch.object(made.objects, "create", side_effect=DatabaseError)
            with self.subTest(made.__name__):
                with lost:
                    self.call("post", path, given, 500)
                self.assertEqual(set(Job.objects.values_list("pk", flat=True)), jobs)


class ComparisonTests(IssueCase):
    def compared(self, **given):
        made = self.call("post", "comparisons/", given, 202)
        made = self.call("get", f"comparisons/{made['id']}/")
        self.assertEqual(made["job"]["state"], "done", made["job"]["message"])
        return made

    def test_an_issued_sheet_is_compared_with_what_it_is_now(self):
        issue = self.issued([self.recipient("Anna")])
        old = issue["sheets"][0]["id"]
        self.assertEqual(self.compared(old_issued=old, new_sheet=self.sheets[0]["id"])["differences"], [])
        self.import_model(self.project, self.ifc(length=5600.0))
        view = self.view_named(self.project, "South elevation")["id"]
        self.call("post", f"views/{view}/draw/", status=202)
        self.change(self.sheets[0], title="South side")
        made = self.compared(old_issued=old, new_sheet=self.sheets[0]["id"])
        kinds = {d["kind"] for d in made["differences"]}
        self.assertLessEqual({"field", "lines"}, kinds)
        self.assertEqual(made["names"][1], f"{self.sheets[0]['number']} now")
        for which in ("before", "after", "over"):
            svg = self.content(f"/api/comparisons/{made['id']}/picture/?which={which}")
            self.assertIn(b"<svg", svg)
        pdf = self.content(f"/api/comparisons/{made['id']}/picture/?which=printed")
        self.assertIn("only in", text(pdf))

    def test_a_sheet_is_compared_with_what_it_was_on_an_earlier_day(self):
        self.call("post", "checks/", {"project": self.project}, 202)
        self.change(self.sheets[0], title="Earlier today")
        self.call("post", "checks/", {"project": self.project}, 202)
        days = self.call("get", f"day-states/?project={self.project}")
        self.assertEqual(len(days), 2)  # one a sheet, whatever became of it within the day
        yesterday = timezone.localdate() - timedelta(days=1)
        DayState.objects.update(day=yesterday)
        self.change(self.sheets[0], title="Today")
        with mock.patch("server.common.pruning.is_old", return_value=True):
            prune()
        day = next(d for d in days if str(d["sheet"]) == self.sheets[0]["id"])
        made = self.compared(old_day=day["id"], new_sheet=self.sheets[0]["id"])
        self.assertEqual(made["names"][0], f"{self.sheets[0]['number']} on {yesterday}")
        words = [d["words"] for d in made["differences"]]
        self.assertEqual(words, ["Title: “Earlier today” is now “Today”."])
        DayState.objects.update(day=timezone.localdate() - 2 * KEPT_DAYS)
        prune()
        self.assertFalse(DayState.objects.exists())

    def test_states_that_cannot_be_compared_are_refused(self):
        sheet = self.sheets[0]["id"]
        self.assertIn("one state", self.call("post", "comparisons/", {"new_sheet": sheet}, 400)["detail"])
        other = self.call("post", "sheets/", {"project": self.make_project("Barn")}, 201)["id"]
        body = {"old_sheet": other, "new_sheet": sheet}
        self.assertIn("one project", self.call("post", "comparisons/", body, 400)["detail"])
