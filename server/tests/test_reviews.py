"""Reviews: a link that needs no account, what can be said behind it, and who cannot get in."""

import io
import math
import zipfile
from datetime import timedelta

import numpy as np
import openpyxl
import pikepdf
import pypdf
import pypdf.annotations
import pypdfium2
from django.core.cache import cache
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone
from PIL import Image
from rest_framework.test import APIClient

from drafting.review.bcf_reading import read_bcf
from drafting.review.scan_placement import ScanPlacement
from drafting.tests.pdf_reading import text
from server.reviews import links
from server.reviews.models import Comment, LinkUse, Review, ReviewLink, ReviewSheet, Scan
from server.tests.test_issues import IssueCase


def data_with_answer(data, topic, words):
    """A BCF file with one more comment of a topic."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as before, zipfile.ZipFile(out, "w") as after:
        for name in before.namelist():
            content = before.read(name)
            if name == f"{topic}/markup.bcf":
                more = f"""<Comment Guid="7c9e6679-7425-40de-944b-e07fc1f90ae7">
                    <Date>2031-05-05T08:00:00Z</Date><Author>Per Lund</Author>
                    <Comment>{words}</Comment></Comment><Viewpoints"""
                content = content.replace(b"<Viewpoints", more.encode())
            after.writestr(name, content)
    return out.getvalue()


LATER = (timezone.now() + timedelta(days=14)).isoformat()


class ReviewCase(IssueCase):
    """Two sheets, reviewed by Oda, who has no account."""

    def setUp(self):
        self.oda = APIClient()
        # How much was said by a link is counted for a minute, and it may be that of another test.
        cache.clear()
        super().setUp()

    def ask(self, status=201, **given):
        body = {
            "project": self.project, "name": "Before tender", "until": LATER, "people": ["Oda Brand"],
            "sheets": [s["id"] for s in self.sheets],
        }  # fmt: skip
        return self.call("post", "reviews/", {**body, **given}, status)

    def asked(self, **given):
        """The secret of the first link of a review that is ready."""
        told = self.ask(**given)
        job = self.call("get", f"reviews/{told['review']['id']}/")["job"]
        self.assertEqual(job["state"], "done", job["message"])
        return told["links"][0]["secret"]

    def oda_asks(self, method, path, body=None, status=200, **extra):
        with self.captureOnCommitCallbacks(execute=True):
            response = getattr(self.oda, method)(f"/api/reviewed/{path}", body, **extra)
        self.assertEqual(response.status_code, status, getattr(response, "data", ""))
        return response.data

    def viewport_of(self, sheet):
        return next(v for v in self.viewports if str(v["sheet"]) == sheet["id"])

    def on_drawing(self, sheet, across=0.5, up=0.5):
        """A place on the drawing of a sheet, paper mm."""
        x, y, width, height = sheet["drawings"][0]["box"]
        return [x + across * width, y + up * height]


class ReviewTests(ReviewCase):
    def test_a_link_shows_the_sheets_as_they_were_without_an_account(self):
        secret = self.asked(message="Please look at the windows.")
        self.change(self.sheets[0], title="Another title")
        told = self.oda_asks("get", f"{secret}/")
        self.assertEqual(
            (told["name"], told["person"], told["message"]),
            ("Before tender", "Oda Brand", "Please look at the windows."),
        )
        self.assertEqual([s["title"] for s in told["sheets"]], [s["title"] for s in self.sheets])
        sheet = told["sheets"][0]
        finest = len(sheet["levels"]) - 1
        tile = self.oda.get(f"/api/reviewed/{secret}/tiles/{sheet['id']}/{finest}/0/0/")
        self.assertEqual(Image.open(io.BytesIO(tile.content)).size, (512, 512))
        self.oda_asks("get", f"{secret}/tiles/{sheet['id']}/{finest + 1}/0/0/", status=404)
        pdf = self.oda.get(f"/api/reviewed/{secret}/pdf/")
        self.assertEqual(b"".join(pdf.streaming_content)[:5], b"%PDF-")

    def test_two_who_answer_at_once_are_both_heard(self):
        secret = self.asked(people=["Oda Brand", "Per Lund"])
        sheet = self.oda_asks("get", f"{secret}/")["sheets"][0]
        said = self.oda_asks("post", f"{secret}/comments/", {"sheet": sheet["id"], "text": "Why?"}, 201)
        (before,) = self.call("get", f"comments/?project={self.project}")
        self.oda_asks("post", f"{secret}/comments/{said['id']}/answers/", {"text": "And how?"}, 201)
        self.call("post", f"comments/{said['id']}/answer/", {"text": "Because."})
        # Whoever changes how it stands has seen both.
        change = {"state": "declined", "version": before["version"]}
        self.call("patch", f"comments/{said['id']}/", change, 409)
        (now,) = self.call("get", f"comments/?project={self.project}")
        self.assertEqual([a["text"] for a in now["answers"]], ["And how?", "Because."])

    def test_an_issue_is_reviewed_as_it_was_issued(self):
        issue = self.issued([self.recipient("Anna")])
        self.change(self.sheets[0], title="Another title")
        secret = self.asked(issue=issue["id"], sheets=[])
        sheets = self.oda_asks("get", f"{secret}/")["sheets"]
        self.assertEqual([s["title"] for s in sheets], [s["title"] for s in issue["sheets"]])

    def test_a_picture_is_kept_as_it_was_read_and_only_by_whoever_commented(self):
        secret = self.asked(people=["Oda Brand"], anyone=True)
        sheet = self.oda_asks("get", f"{secret}/")["sheets"][0]
        said = self.oda_asks("post", f"{secret}/comments/", {"sheet": sheet["id"], "text": "So:"}, 201)
        photo = io.BytesIO()
        Image.new("RGB", (40, 30), "#336699").save(photo, "JPEG")
        photo.seek(0)
        photo.name = "crack.jpg"
        path = f"{secret}/comments/{said['id']}/pictures/"
        made = self.oda_asks("post", path, {"file": photo}, 201, format="multipart")
        sent = self.oda.get(f"/api/reviewed/{secret}/pictures/{made['id']}/")
        self.assertEqual(Image.open(io.BytesIO(b"".join(sent.streaming_content))).size, (40, 30))
        script = io.BytesIO(b"<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>")
        script.name = "x.svg"
        self.oda_asks("post", path, {"file": script}, 400, format="multipart")
        big = io.BytesIO(b"\xff" * 11_000_000)
        big.name = "big.png"
        self.oda_asks("post", path, {"file": big}, 422, format="multipart")


class ReviewedCase(ReviewCase):
    """The two sheets are with Oda already."""

    begins_with = "a review"

    def made(self):
        self.project, self.sheets, _ = super().made()
        return self.project, self.sheets, self.asked()


class ReviewedTests(ReviewedCase):
    def test_tiles_show_what_the_sheet_shows(self):
        sheet = self.oda_asks("get", f"{self.secret}/")["sheets"][0]
        whole = self.oda.get(f"/api/reviewed/{self.secret}/tiles/{sheet['id']}/0/0/0/")
        pixels = Image.open(io.BytesIO(whole.content)).convert("L")
        per_mm = sheet["levels"][0]["per_mm"]
        x, y, width, height = sheet["drawings"][0]["box"]
        box = (
            x * per_mm,
            (sheet["height"] - y - height) * per_mm,
            (x + width) * per_mm,
            (sheet["height"] - y) * per_mm,
        )
        self.assertLess(min(pixels.crop(tuple(map(int, box))).getdata()), 100)
        self.assertEqual(pixels.getpixel((3, 3)), 255)

    def test_a_comment_knows_the_drawing_and_the_element_at_its_place(self):
        sheet = self.oda_asks("get", f"{self.secret}/")["sheets"][0]
        at = self.on_drawing(sheet, up=0.35)
        marks = [{"kind": "point", "at": at}]
        body = {"sheet": sheet["id"], "text": "Is this wall rendered?", "marks": marks}
        said = self.oda_asks("post", f"{self.secret}/comments/", body, 201)
        self.assertEqual((said["number"], said["author"], said["state"]), (1, "Oda Brand", "open"))
        row = Comment.objects.get()
        self.assertTrue(said["element"]["ifc_class"].startswith("Ifc"))
        self.assertEqual(str(row.sheet_id), self.sheets[0]["id"])
        self.assertEqual(row.viewport, self.viewport_of(self.sheets[0])["id"])
        self.assertEqual(len(row.element["at"]), 3)
        (told,) = self.call("get", f"comments/?project={self.project}")
        self.assertEqual((told["text"], told["origin"]), ("Is this wall rendered?", "link"))

    def test_a_length_is_told_through_the_scale_of_its_drawing(self):
        sheet = self.oda_asks("get", f"{self.secret}/")["sheets"][0]
        first, last = self.on_drawing(sheet, 0.2), self.on_drawing(sheet, 0.8, 0.6)
        mark = {"kind": "length", "first": first, "last": last, "length": 1}
        body = {"sheet": sheet["id"], "text": "", "marks": [mark]}
        said = self.oda_asks("post", f"{self.secret}/comments/", body, 201)
        scale = float(self.viewport_of(self.sheets[0])["scale"].split(":")[1])
        self.assertAlmostEqual(said["marks"][0]["length"], math.dist(first, last) * scale, places=3)
        off = {"kind": "length", "first": first, "last": [1, 1]}
        said = self.oda_asks("post", f"{self.secret}/comments/", {**body, "marks": [off]}, 201)
        self.assertEqual(said["marks"][0]["length"], 0)

    def test_an_answer_of_the_project_answers_and_one_of_the_reviewer_opens_again(self):
        sheet = self.oda_asks("get", f"{self.secret}/")["sheets"][0]
        body = {"sheet": sheet["id"], "text": "Too low?"}
        said = self.oda_asks("post", f"{self.secret}/comments/", body, 201)
        told = self.call("post", f"comments/{said['id']}/answer/", {"text": "It is 900 mm."})
        self.assertEqual((told["state"], told["answers"][0]["author"]), ("answered", "ines"))
        again = self.oda_asks(
            "post", f"{self.secret}/comments/{said['id']}/answers/", {"text": "Still too low."}, 201
        )
        self.assertEqual((again["state"], [a["own"] for a in again["answers"]]), ("open", [True, False]))
        self.call(
            "patch", f"sheets/{self.sheets[0]['id']}/", {"revisions": [{"revision": "P02"}], "version": 1}
        )
        done = self.call("post", f"comments/{said['id']}/answer/", {"text": "Raised.", "state": "done"})
        self.assertEqual((done["state"], done["done_in"]), ("done", "P02"))
        # A word of thanks of the project's own does not open what is settled.
        self.assertEqual(self.call("post", f"comments/{said['id']}/answer/", {"text": "!"})["state"], "done")

    def test_an_answer_shows_the_place_before_and_now(self):
        sheet = self.oda_asks("get", f"{self.secret}/")["sheets"][0]
        corners = [self.on_drawing(sheet, *at) for at in ((0.02, 0.02), (0.98, 0.02), (0.98, 0.98))]
        marks = [{"kind": "cloud", "corners": corners}]
        body = {"sheet": sheet["id"], "text": "Too small", "marks": marks}
        said = self.oda_asks("post", f"{self.secret}/comments/", body, 201)
        viewport = self.viewport_of(self.sheets[0])
        # The drawing has gone 20 mm to the right since: what it shows there has not changed.
        change = {"x": viewport["x"] + 20, "version": viewport["version"]}
        self.call("patch", f"viewports/{viewport['id']}/", change)
        answered = {"text": "So?", "state": "done", "pictured": True}
        self.call("post", f"comments/{said['id']}/answer/", answered)
        (now,) = self.call("get", f"comments/?project={self.project}")
        self.assertEqual(
            [p["caption"] for p in now["pictures"]], ["Before, as reviewed", "Now, no revision yet"]
        )
        before, after = (
            np.asarray(
                Image.open(io.BytesIO(self.content(f"/api/comment-pictures/{p['id']}/pixels/"))), float
            )
            for p in now["pictures"]
        )
        self.assertEqual(before.shape, after.shape)
        self.assertLess(np.abs(before - after).mean(), 3.0)
        self.assertLess(before.min(), 100)
        # What has no place cannot be shown, and is not answered then.
        said = self.oda_asks(
            "post", f"{self.secret}/comments/", {"sheet": sheet["id"], "text": "All of it"}, 201
        )
        self.call("post", f"comments/{said['id']}/answer/", answered, 400)
        self.assertEqual(self.call("get", f"comments/{said['id']}/")["answers"], [])

    def test_what_was_said_stays_and_only_how_it_stands_changes(self):
        sheet = self.oda_asks("get", f"{self.secret}/")["sheets"][0]
        said = self.oda_asks("post", f"{self.secret}/comments/", {"sheet": sheet["id"], "text": "Why?"}, 201)
        change = {"text": "Nice!", "author": "x", "assigned": "Kim", "due": "2031-05-01", "version": 1}
        told = self.call("patch", f"comments/{said['id']}/", change)
        self.assertEqual((told["text"], told["author"]), ("Why?", "Oda Brand"))
        self.assertEqual((told["assigned"], told["due"]), ("Kim", "2031-05-01"))
        self.call("delete", f"comments/{said['id']}/", status=400)
        self.call("post", "comments/", {"project": self.project, "text": "x"}, 400)

    def test_a_link_that_is_guessed_expired_or_withdrawn_leads_nowhere(self):
        self.assertEqual(self.oda_asks("get", "x" * 32 + "/", status=404)["detail"], links.GONE)
        self.assertNotIn(self.secret, list(ReviewLink.objects.values_list("digest", flat=True)))
        review = Review.objects.get()
        self.call("post", f"reviews/{review.pk}/withdraw/")
        for path in ("", "comments/", "pdf/"):
            self.assertEqual(self.oda_asks("get", f"{self.secret}/{path}", status=404)["detail"], links.OVER)
        self.call("post", f"reviews/{review.pk}/extend/", {"until": LATER})
        self.oda_asks("get", f"{self.secret}/")
        Review.objects.update(until=timezone.now() - timedelta(minutes=1))
        self.assertEqual(self.oda_asks("get", f"{self.secret}/", status=404)["detail"], links.OVER)

    def test_a_link_made_anew_ends_the_old_one(self):
        link = ReviewLink.objects.get()
        new = self.call("post", f"review-links/{link.pk}/renew/")["secret"]
        self.oda_asks("get", f"{self.secret}/", status=404)
        self.oda_asks("get", f"{new}/")
        other = self.call("post", f"reviews/{link.review_id}/links/", {"name": "Per Lund"}, 201)
        self.call("delete", f"review-links/{link.pk}/", status=204)
        self.oda_asks("get", f"{new}/", status=404)
        self.assertEqual(self.oda_asks("get", f"{other['secret']}/")["person"], "Per Lund")

    def test_very_many_comments_are_slowed_down(self):
        answers = [self.oda.post(f"/api/reviewed/{self.secret}/comments/", {}).status_code for _ in range(70)]
        self.assertEqual(answers[-1], 429)
        self.assertEqual(LinkUse.objects.filter(kind="commented").count(), 0)

    def test_marks_that_are_none_are_refused_by_name(self):
        sheet = self.oda_asks("get", f"{self.secret}/")["sheets"][0]
        for mark in (
            {"kind": "star", "at": [1, 1]},
            {"kind": "line", "run": [[0, 0]]},
            {"kind": "point", "at": [float("1e9"), 0]},
            {"kind": "line", "run": [[k, k] for k in range(3000)]},
        ):
            body = {"sheet": sheet["id"], "text": "x", "marks": [mark]}
            self.oda_asks("post", f"{self.secret}/comments/", body, 400)
        self.oda_asks("post", f"{self.secret}/comments/", {"sheet": sheet["id"], "text": " "}, 400)
        self.assertEqual(Comment.objects.count(), 0)


class CommentFileTests(ReviewedCase):
    """Comments that come and go in files."""

    def setUp(self):
        super().setUp()
        self.review = Review.objects.get()
        self.looked_at = self.oda_asks("get", f"{self.secret}/")["sheets"]

    def pdf(self):
        return self.client.get(f"/api/reviews/{self.review.pk}/pdf/").content

    def drop(self, data, state="done", name="commented.pdf"):
        """What comes of a file, or why nothing does."""
        sent = {"project": self.project, "file": SimpleUploadedFile(name, data)}
        made = self.call("post", "comment-files/", sent, 202, format="multipart")
        made = self.call("get", f"comment-files/{made['id']}/")
        self.assertEqual(made["job"]["state"], state, made["job"]["message"])
        return made if state == "done" else made["job"]["message"]

    def with_note(self, data, x, y, text="Too low", page=0, made=""):
        """The PDF with a note whose upper left corner is at a place of a page, paper mm."""
        mm = 72 / 25.4
        writer = pypdf.PdfWriter(clone_from=io.BytesIO(data))
        note = pypdf.annotations.Text(rect=(x * mm, y * mm - 20, x * mm + 20, y * mm), text=text)
        note[pypdf.generic.NameObject("/T")] = pypdf.generic.TextStringObject("Per Lund")
        if made:
            note[pypdf.generic.NameObject("/M")] = pypdf.generic.TextStringObject(made)
        writer.add_annotation(page, note)
        out = io.BytesIO()
        writer.write(out)
        return out.getvalue()

    def test_a_commented_pdf_comes_back_at_its_places_and_once_only(self):
        at = self.on_drawing(self.looked_at[1], up=0.35)
        commented = self.with_note(self.pdf(), *at, page=1)
        found = self.drop(commented)
        self.assertEqual((found["made"], found["known"], found["notes"]), (1, 0, []))
        (said,) = self.call("get", f"comments/?project={self.project}")
        self.assertEqual((said["author"], said["text"], said["origin"]), ("Per Lund", "Too low", "pdf"))
        self.assertEqual(str(said["sheet"]), self.sheets[1]["id"])
        self.assertEqual(str(said["reviewed"]), self.looked_at[1]["id"])
        self.assertLess(math.dist(said["marks"][0]["at"], at), 0.5)
        self.assertTrue(said["element"]["ifc_class"].startswith("Ifc"))
        again = self.drop(commented)
        self.assertEqual((again["made"], again["known"]), (0, 1))
        # Reduced by a reader that gives other names, it is still the same.
        writer = pypdf.PdfWriter(clone_from=io.BytesIO(commented))
        writer.pages[1].scale_by(0.5)
        out = io.BytesIO()
        writer.write(out)
        self.assertEqual(self.drop(out.getvalue())["made"], 0)

    def test_a_comment_of_no_time_or_of_the_future_is_of_now(self):
        for k, made in enumerate(("D:00010101000000+14'00'", "D:29990101000000Z", "yesterday")):
            self.drop(self.with_note(self.pdf(), 60 + 9 * k, 70, made=made))
        now = timezone.now()
        for row in Comment.objects.all():
            self.assertLess(abs((now - row.made).total_seconds()), 300)
        self.assertEqual(Comment.objects.count(), 3)

    def test_what_was_said_goes_out_as_annotations_and_answers_come_back(self):
        body = {
            "sheet": self.looked_at[0]["id"],
            "text": "Why?",
            "marks": [{"kind": "point", "at": [50, 60]}],
        }
        said = self.oda_asks("post", f"{self.secret}/comments/", body, 201)
        self.call("post", f"comments/{said['id']}/answer/", {"text": "Because."})
        pdf = pikepdf.open(io.BytesIO(self.pdf()))
        first, answer = pdf.pages[0].Annots
        self.assertEqual((str(first.T), str(first.Contents)), ("Oda Brand", "Why?"))
        self.assertEqual(str(answer.Contents), "Because.")
        reply = pikepdf.Dictionary(
            Subtype=pikepdf.Name.Text, Rect=first.Rect, Contents="I see.", T="Oda Brand", IRT=first, NM="r1"
        )
        pdf.pages[0].Annots.append(pdf.make_indirect(reply))
        out = io.BytesIO()
        pdf.save(out)
        for _ in range(2):
            found = self.drop(out.getvalue())
            self.assertEqual((found["made"], found["known"]), (0, 1))
        (now,) = self.call("get", f"comments/?project={self.project}")
        self.assertEqual([a["text"] for a in now["answers"]], ["Because.", "I see."])

    def test_a_topic_goes_out_with_its_element_and_comes_back_with_its_answers(self):
        at = self.on_drawing(self.looked_at[0], up=0.35)
        body = {"sheet": self.looked_at[0]["id"], "text": "Why?", "marks": [{"kind": "point", "at": at}]}
        said = self.oda_asks("post", f"{self.secret}/comments/", body, 201)
        data = self.client.get(f"/api/comment-bcf/?project={self.project}").content
        (topic,) = self.topics(data)
        self.assertEqual((topic.comment.key, topic.elements), (said["id"], (said["element"]["id"],)))
        answered = data_with_answer(data, said["id"], "Because of the beam.")
        for _ in range(2):
            found = self.drop(answered, name="comments.bcf")
            self.assertEqual((found["made"], found["known"]), (0, 1))
        (now,) = self.call("get", f"comments/?project={self.project}")
        self.assertEqual([a["text"] for a in now["answers"]], ["Because of the beam."])

    def test_a_topic_of_others_comes_to_the_sheet_that_shows_its_element(self):
        at = self.on_drawing(self.looked_at[0], up=0.35)
        body = {"sheet": self.looked_at[0]["id"], "text": "Why?", "marks": [{"kind": "point", "at": at}]}
        self.oda_asks("post", f"{self.secret}/comments/", body, 201)
        data = self.client.get(f"/api/comment-bcf/?project={self.project}").content
        element = Comment.objects.get().element["id"]
        Comment.objects.all().delete()
        self.assertEqual(self.drop(data, name="comments.bcf")["made"], 1)
        (said,) = self.call("get", f"comments/?project={self.project}")
        self.assertEqual((said["origin"], said["element"]["id"]), ("bcf", element))
        sheet = next(s for s in self.looked_at if s["id"] == str(said["reviewed"]))
        x, y, width, height = sheet["drawings"][0]["box"]
        left, foot = said["marks"][0]["at"]
        self.assertTrue(x < left < x + width and y < foot < y + height)
        Comment.objects.all().delete()
        ReviewSheet.objects.all().delete()
        found = self.drop(data, name="comments.bcf")
        self.assertEqual(found["made"], 1)
        self.assertIn("in the list alone", found["notes"][0])

    def topics(self, data):
        file = self.data / "x.bcf"
        file.write_bytes(data)
        return read_bcf(file)

    def test_a_pdf_of_an_issue_that_nobody_reviewed_is_known_too(self):
        issue = self.issued([self.recipient("Anna")])
        Review.objects.all().delete()
        file = issue["recipients"][0]["files"][0]["id"]
        pdf = b"".join(self.client.get(f"/api/issued-files/{file}/file/").streaming_content)
        self.assertEqual(self.drop(self.with_note(pdf, 60, 70))["made"], 1)
        (said,) = self.call("get", f"comments/?project={self.project}")
        self.assertEqual((str(said["sheet"]), said["reviewed"]), (self.sheets[0]["id"], None))

    def test_a_pdf_of_an_earlier_revision_says_so(self):
        pdf = self.pdf()
        self.change(self.sheets[0], revisions=[{"revision": "P02"}])
        found = self.drop(self.with_note(pdf, 60, 70))
        number = self.sheets[0]["number"]
        self.assertEqual(found["notes"], [f"{number} is commented in revision none yet; it is P02 now."])

    def test_a_pdf_of_another_set_is_refused_by_name_and_leaves_nothing(self):
        other = self.make_project("Other")
        sent = {"project": other, "file": SimpleUploadedFile("x.pdf", self.with_note(self.pdf(), 9, 9))}
        made = self.call("post", "comment-files/", sent, 202, format="multipart")
        job = self.call("get", f"comment-files/{made['id']}/")["job"]
        self.assertIn("Nothing was issued or reviewed yet", job["message"])
        self.assertIn("damaged, or no PDF", self.drop(b"%PDF-1.7 nothing", "failed"))
        blank = pypdf.PdfWriter()
        blank.add_blank_page(300, 400)
        out = io.BytesIO()
        blank.write(out)
        self.assertIn("No page of this PDF", self.drop(self.with_note(out.getvalue(), 9, 9), "failed"))
        self.assertEqual(Comment.objects.count(), 0)

    def test_scripts_in_what_is_said_stay_words(self):
        text = "<script>alert(1)</script>=HYPERLINK(1)"
        body = {"sheet": self.looked_at[0]["id"], "text": text}
        self.assertEqual(self.oda_asks("post", f"{self.secret}/comments/", body, 201)["text"], text)
        book = self.client.get(f"/api/comment-summary/?project={self.project}&form=xlsx").content
        cell = openpyxl.load_workbook(io.BytesIO(book)).active["D2"]
        self.assertEqual((cell.value, cell.data_type), (text, "s"))

    def test_a_summary_has_all_that_was_said_and_answered(self):
        for k, sheet in enumerate(self.looked_at):
            said = self.oda_asks(
                "post", f"{self.secret}/comments/", {"sheet": sheet["id"], "text": f"Question {k}"}, 201
            )
        self.call("post", f"comments/{said['id']}/answer/", {"text": "Done so.", "state": "done"})
        pdf = self.client.get(f"/api/comment-summary/?project={self.project}").content
        printed = text(pdf)
        for words in ("Question 0", "Question 1", "Done so.", "1 done, 1 open", self.sheets[1]["number"]):
            self.assertIn(words, printed)

    def test_an_unanswered_comment_is_a_finding_of_the_check(self):
        body = {
            "sheet": self.looked_at[0]["id"],
            "text": "Why?",
            "marks": [{"kind": "point", "at": [50, 60]}],
        }
        said = self.oda_asks("post", f"{self.secret}/comments/", body, 201)

        def found():
            self.call("post", "checks/", {"project": self.project}, 202)
            findings = self.call("get", f"checks/?project={self.project}")["findings"]
            return [each for each in findings if each["rule"] == "comments-unanswered"]

        (finding,) = found()
        self.assertEqual((str(finding["sheet"]), finding["at"]), (self.sheets[0]["id"], [50, 60]))
        self.call("post", f"comments/{said['id']}/answer/", {"text": "Because."})
        self.assertEqual(found(), [])


class LinkTests(ReviewCase):
    def test_a_link_reaches_its_own_review_alone(self):
        secret, other = self.asked(), self.asked(sheets=[self.sheets[1]["id"]], people=["Per Lund"])
        foreign = self.oda_asks("get", f"{other}/")["sheets"][0]["id"]
        self.oda_asks("get", f"{secret}/tiles/{foreign}/0/0/0/", status=404)
        self.oda_asks("post", f"{secret}/comments/", {"sheet": foreign, "text": "x"}, 404)
        said = self.oda_asks("post", f"{other}/comments/", {"sheet": foreign, "text": "x"}, 201)
        self.oda_asks("post", f"{secret}/comments/{said['id']}/answers/", {"text": "x"}, 404)
        self.assertEqual(self.oda_asks("get", f"{secret}/comments/"), [])
        # It is no way into the project, nor another's project a way to it.
        self.assertEqual(self.oda.get(f"/api/comments/?project={self.project}").status_code, 403)
        self.client.force_login(type(self.user).objects.create_user("udo", password="samphire-88"))
        self.assertEqual(self.call("get", f"comments/?project={self.project}"), [])
        self.call("post", f"reviews/{Review.objects.first().pk}/withdraw/", status=404)

    def test_a_word_is_asked_for_and_cannot_be_guessed_on_and_on(self):
        secret = self.asked(word="cormorant")
        told = self.oda_asks("get", f"{secret}/")
        self.assertEqual((told["locked"], told["sheets"], told["message"]), (True, [], ""))
        self.oda_asks("get", f"{secret}/comments/", status=403)
        self.oda_asks("post", f"{secret}/", {"word": "gull"}, 400)
        self.oda_asks("post", f"{secret}/", {"word": " cormorant "}, 204)
        self.assertEqual(len(self.oda_asks("get", f"{secret}/")["sheets"]), 2)
        self.oda_asks("get", f"{secret}/comments/")
        thief = APIClient()
        for _ in range(links.MAX_WRONG):
            thief.post(f"/api/reviewed/{secret}/", {"word": "gull"})
        refused = thief.post(f"/api/reviewed/{secret}/", {"word": "cormorant"})
        self.assertEqual(refused.status_code, 400)
        self.assertIn("quarter of an hour", refused.data["detail"])

    def test_every_use_of_a_link_is_kept(self):
        secret = self.asked(people=[], anyone=True)
        sheet = self.oda_asks("get", f"{secret}/")["sheets"][0]
        self.oda_asks("get", f"{secret}/")
        body = {"sheet": sheet["id"], "text": "Why?"}
        self.assertIn("who you are", self.oda_asks("post", f"{secret}/comments/", body, 400)["detail"])
        self.oda_asks("post", f"{secret}/comments/", {**body, "author": "Per Lund"}, 201)
        uses = self.call("get", f"reviews/{Review.objects.get().pk}/uses/")
        self.assertEqual([(u["kind"], u["name"]) for u in uses], [("commented", "Per Lund"), ("opened", "")])
        self.assertEqual(uses[0]["address"], "127.0.0.1")
        (review,) = self.call("get", f"reviews/?project={self.project}")
        self.assertEqual(review["links"][0]["opened"], 1)

    def test_what_cannot_be_asked_is_refused_and_leaves_nothing(self):
        self.ask(400, sheets=[])
        self.ask(400, people=[" "])
        self.ask(400, until=(timezone.now() - timedelta(days=1)).isoformat())
        self.ask(400, people=[f"Person {k}" for k in range(60)])
        other = self.make_project("Other")
        self.ask(400, project=other)
        self.assertEqual(Review.objects.count(), 0)


class ScanTests(ReviewCase):
    """Prints that were marked by hand, scanned."""

    def scan(self, name="print.png", data=None, status=202):
        if data is None:
            out = io.BytesIO()
            Image.new("L", (600, 420), 235).save(out, "PNG")
            data = out.getvalue()
        sent = {"sheet": self.sheets[0]["id"], "file": SimpleUploadedFile(name, data)}
        made = self.call("post", "scan-files/", sent, status, format="multipart")
        return self.call("get", f"scan-files/{made['id']}/") if status == 202 else made

    def printed(self, turn):
        """The first sheet as it comes from a scanner."""
        _, pdf = self.plotted(self.project, sheets=[self.sheets[0]["id"]])
        picture = pypdfium2.PdfDocument(pdf)[0].render(scale=120 / 72).to_pil().convert("L")
        out = io.BytesIO()
        picture.rotate(turn, expand=True, fillcolor=255).save(out, "JPEG")
        return out.getvalue()

    def test_a_scan_lies_on_its_sheet_by_its_frame(self):
        self.assertEqual(self.scan(data=self.printed(1.2))["job"]["state"], "done")
        (scan,) = self.call("get", f"scans/?project={self.project}")
        self.assertTrue(scan["found"])
        placement = ScanPlacement(**scan["placement"])
        middle = placement.place(scan["width"] / 2, scan["height"] / 2)
        display = self.call("get", f"sheets/{self.sheets[0]['id']}/display/")
        self.assertLess(math.dist(middle, (display["width"] / 2, display["height"] / 2)), 1.5)
        picture = Image.open(io.BytesIO(self.content(f"/api/scans/{scan['id']}/pixels/")))
        self.assertEqual(picture.size, (scan["width"], scan["height"]))

    def test_one_without_a_frame_fills_the_sheet_until_it_is_laid_by_points(self):
        self.scan()
        (scan,) = self.call("get", f"scans/?project={self.project}")
        self.assertFalse(scan["found"])
        placement = {"a": 0.5, "b": 0.01, "c": 3, "d": 0.01, "e": -0.5, "f": 200}
        laid = self.call("patch", f"scans/{scan['id']}/", {"placement": placement, "version": 1})
        self.assertEqual(laid["placement"], placement)
        flat = {**placement, "a": 0, "b": 0}
        self.call("patch", f"scans/{scan['id']}/", {"placement": flat, "version": 2}, 400)
        self.call("delete", f"scans/{scan['id']}/?version=2", status=204)

    def test_what_is_no_picture_is_refused_by_name_and_nobody_else_lays_one(self):
        self.assertIn("“notes.txt” could not be read", self.scan("notes.txt", b"x")["job"]["message"])
        self.assertEqual(Scan.objects.count(), 0)
        self.client.force_login(type(self.user).objects.create_user("udo", password="samphire-88"))
        self.scan(status=400)
