"""The installation as `./dunefold serve` starts it, used from outside: what every other test has in its own
process has a process of its own here."""

from __future__ import annotations

import datetime
import io
import os
import re
import signal
import socket
import subprocess
import sys
import tempfile
import threading
import zipfile
from collections import Counter
from contextlib import closing
from pathlib import Path
from typing import Any, ClassVar
from unittest import TestCase

import ezdxf
import httpx
import openpyxl
from PIL import Image

from drafting.tests.ifc_files import write_ifc
from e2e.launched import ROOT, Launched, Launcher, Person, eventually, free_port
from e2e.shared import LIKE, shared

PASSWORD = "samphire-88"
SVG = b'<svg xmlns="http://www.w3.org/2000/svg" width="20" height="10"><path d="M0 0L20 10"/></svg>'
LATER = (datetime.datetime.now(datetime.UTC) + datetime.timedelta(days=5)).isoformat()
TODAY = datetime.date.today().isoformat()


def png() -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (40, 30), "#336699").save(out, "PNG")
    return out.getvalue()


def dxf() -> bytes:
    made = ezdxf.new("R2010", units=6)
    block = made.blocks.new("Tree")
    block.add_circle((0, 0), 1.0)
    made.modelspace().add_lwpolyline([(0, 0), (30, 0), (30, 20)], close=True)
    made.modelspace().add_blockref("Tree", (5, 5))
    out = io.StringIO()
    made.write(out)
    return out.getvalue().encode()


def xlsx() -> bytes:
    book = openpyxl.Workbook()
    book.active.append(["Door", "Width"])
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


class ServedCase(TestCase):
    """An installation with a project: a building, and a sheet with a drawing of it."""

    #: Settings of the installation beside the usual ones.
    environment: ClassVar[dict[str, str]] = {}
    launched: ClassVar[Launched]
    person: ClassVar[Person]
    project: ClassVar[str]
    sheet: ClassVar[str]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.folder = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        cls.launched = cls.enterClassContext(Launched(cls.folder / "data", cls.environment))
        cls.person = cls.launched.add_person("ines", PASSWORD)
        cls.addClassCleanup(cls.person.close)
        cls.project = cls.person.made("projects/", {"name": "Quay house", "practice": "Reed and Rope"})["id"]
        cls.import_building(write_ifc(cls.folder / "house.ifc"))
        cls.sheet = cls.add_sheet("South elevation")

    @classmethod
    def import_building(cls, file: Path) -> Any:
        """The job that has read a building file."""
        with file.open("rb") as stream:
            job = cls.person.made(
                "model-versions/", data={"project": cls.project}, files={"file": (file.name, stream)}
            )
        return cls.person.done(f"jobs/{job['id']}/", lambda row: row["state"])

    @classmethod
    def add_sheet(cls, view: str) -> str:
        """A sheet on which a view is placed and drawn."""
        given = {"project": cls.project, "title": view, "creator": "I", "drawn_on": "x"}
        sheet: str = cls.person.made("sheets/", given)["id"]
        views = cls.person.list("views/", project=cls.project)
        placed = next(each["id"] for each in views if each["name"] == view)
        cls.person.made("viewports/", {"sheet": sheet, "view": placed})
        eventually(lambda: cls.viewport(sheet)["linework"], f"{view} to be drawn")
        return sheet

    @classmethod
    def viewport(cls, sheet: str) -> Any:
        rows = cls.person.list("viewports/", project=cls.project)
        return next(row for row in rows if row["sheet"] == sheet)

    def uploaded(self, path: str, name: str, data: bytes, field: str = "file", **given: str) -> Any:
        return self.person.made(path, data={"project": self.project, **given}, files={field: (name, data)})

    def plotted(self, form: str) -> bytes:
        given = {"project": self.project, "sheets": [self.sheet], "form": form}
        plot = self.person.made("plots/", given)
        self.person.done(f"plots/{plot['id']}/")
        return self.person.file(f"plots/{plot['id']}/file/")

    def issued(self, **spec: Any) -> Any:
        given = {"project": self.project, "spec": {"name": "Anna", **spec}}
        recipient = self.person.made("recipients/", given)
        order = self.person.made(
            "issues/",
            {
                "project": self.project, "name": "First issue", "purpose": "Comment", "date": TODAY,
                "reason": "To be talked about", "sheets": [self.sheet], "recipients": [recipient["id"]],
            },
        )  # fmt: skip
        self.person.done(f"issue-orders/{order['id']}/")
        return self.person.list("issues/", project=self.project)[-1]


class ServedTests(ServedCase):
    #: By which the runner knows that these come among the last.
    with_browser = True

    def test_sheets_are_composed_beside_the_web_process(self):
        web = self.launched.parts["web-server"]

        def worked_out() -> Counter[str]:
            lines = self.person.get("/metrics").text.splitlines()
            found = (line for line in lines if line.startswith("dunefold_worked_out_total"))
            return Counter({line.split('"')[1]: float(line.split()[-1]) for line in found})

        before = worked_out()
        for k in range(3):
            self.person.changed(f"sheets/{self.sheet}/", {"title": f"South {k}", "version": self.version()})
            self.assertTrue(self.person.list(f"sheets/{self.sheet}/display/")["items"])
        after = worked_out()
        self.assertGreaterEqual(after["beside"] - before["beside"], 3)
        self.assertEqual(after["web"], before["web"])
        processes = self.launched.processes("web-server")
        self.uploaded("pictures/", "logo.png", png())
        self.assertLessEqual(processes, self.launched.processes("web-server"))
        self.assertEqual(self.launched.parts["web-server"], web)

    def version(self) -> int:
        version: int = self.person.list(f"sheets/{self.sheet}/")["version"]
        return version

    def test_every_kind_of_file_comes_in(self):
        for name, data in (("logo.png", png()), ("logo.svg", SVG)):
            self.assertTrue(self.uploaded("pictures/", name, data)["id"])
        for name, data in (("doors.csv", b"Door,Width\nD1,900\n"), ("doors.xlsx", xlsx())):
            made = self.uploaded("table-files/", name, data, "upload")
            self.assertEqual(made["cells"][0], ["Door", "Width"])
        for name, data in (("tree.svg", SVG), ("tree.dxf", dxf())):
            self.assertTrue(self.uploaded("symbols/read/", name, data, "upload"))
        for name, data in (("survey.dxf", dxf()), ("survey.svg", SVG), ("survey.pdf", self.plotted("pdf"))):
            job = self.uploaded("received-files/", name, data, "upload")
            self.person.done(f"jobs/{job['id']}/", lambda row: row["state"])
        scan = self.person.made("scan-files/", data={"sheet": self.sheet}, files={"file": ("p.png", png())})
        self.person.done(f"scan-files/{scan['id']}/")

    def test_every_kind_of_building_file_is_read(self):
        own = self.person.made("projects/", {"name": "Files"})["id"]
        box = "".join(f"v {x} {y} {z}\n" for z in (0, 3) for y in (0, 6) for x in (0, 9))
        hut = box + "f 1 3 4 2\nf 5 6 8 7\nf 1 2 6 5\nf 3 7 8 4\nf 1 5 7 3\nf 2 4 8 6\n"
        zipped = io.BytesIO()
        with zipfile.ZipFile(zipped, "w") as archive:
            archive.write(self.folder / "house.ifc", "house.ifc")
        ifc = write_ifc(self.folder / "feet.ifc", schema="IFC2X3", unit="foot").read_bytes()
        for name, data in (("hut.obj", hut.encode()), ("house.ifczip", zipped.getvalue()), ("f.ifc", ifc)):
            job = self.person.made("model-versions/", data={"project": own}, files={"file": (name, data)})
            self.person.done(f"jobs/{job['id']}/", lambda row: row["state"])
            for asked in self.person.list("size-questions/", project=own):
                self.person.made(f"size-questions/{asked['id']}/answer/", {"use": True, "unit": ""})
        eventually(lambda: len(self.person.list("model-versions/", project=own)) == 3, "three versions")

    def test_every_format_goes_out(self):
        begins = {"pdf": b"%PDF-", "dxf": b"  0", "svg": b"<?xml", "png": b"\x89PNG"}
        for form, start in begins.items():
            with self.subTest(form):
                self.assertTrue(self.plotted(form).startswith(start))
        table = self.person.made(
            "annotations/",
            {
                "project": self.project,
                "sheet": self.sheet,
                "spec": {"kind": "schedule", "of": "elements", "at": {"at": [30, 250]}},
            },
        )
        self.assertTrue(self.person.file(f"annotations/{table['id']}/csv/"))
        self.assertTrue(self.person.file(f"annotations/{table['id']}/xlsx/").startswith(b"PK"))

    def test_an_issue_is_sent_made_again_compared_registered_and_reviewed(self):
        issue = self.issued(forms=["pdf", "dxf", "svg", "png", "model"])
        recipient = issue["recipients"][0]
        self.assertEqual(recipient["sent"]["state"], "sent")
        delivered = self.folder / "data" / "delivered" / recipient["sent"]["place"]
        self.assertLess({"Transmittal.pdf", "house.ifc"}, {each.name for each in delivered.iterdir()})
        own = f"issued-recipients/{recipient['id']}"
        self.assertTrue(self.person.file(f"{own}/transmittal/").startswith(b"%PDF"))
        self.assertTrue(self.person.file(f"{own}/archive/").startswith(b"PK"))
        again = self.person.made(f"{own}/remake/")
        self.assertIs(self.person.done(f"remakes/{again['id']}/")["same"], True)
        for form, start in (("pdf", b"%PDF"), ("xlsx", b"PK")):
            data = self.person.file("issue-register/", project=self.project, form=form)
            self.assertTrue(data.startswith(start))
        compared = self.person.made(
            "comparisons/", {"old_issued": issue["sheets"][0]["id"], "new_sheet": self.sheet}
        )
        self.person.done(f"comparisons/{compared['id']}/")
        for which in ("over", "printed"):
            self.assertTrue(self.person.file(f"comparisons/{compared['id']}/picture/", which=which))
        self.review(issue["id"])

    def review(self, issue: str) -> None:
        asked = self.person.made(
            "reviews/",
            {
                "project": self.project,
                "name": "Windows",
                "issue": issue,
                "until": LATER,
                "people": ["Oda Brand"],
            },
        )
        review, secret = asked["review"]["id"], asked["links"][0]["secret"]
        eventually(lambda: self.person.list(f"reviews/{review}/")["ready"], "a review to be ready")
        with httpx.Client(base_url=f"{self.launched.address}/api/reviewed/{secret}", timeout=60) as oda:
            sheet = oda.get("/").json()["sheets"][0]
            self.assertEqual(oda.get(f"/tiles/{sheet['id']}/0/0/0/").status_code, 200)
            mark = {"kind": "point", "at": [sheet["width"] / 2, sheet["height"] / 2]}
            said = oda.post(
                "/comments/", json={"sheet": sheet["id"], "text": "Here?", "marks": [mark]}
            ).json()
            answer = oda.post(f"/comments/{said['id']}/pictures/", files={"file": ("crack.png", png())})
            self.assertEqual(answer.status_code, 201, answer.text)
        pdf = self.person.file(f"reviews/{review}/pdf/")
        self.assertTrue(pdf.startswith(b"%PDF"))
        bcf = self.person.file("comment-bcf/", project=self.project)
        self.assertTrue(bcf.startswith(b"PK"))
        for form in ("pdf", "xlsx"):
            self.assertTrue(self.person.file("comment-summary/", project=self.project, form=form))
        for name, data in (("commented.pdf", pdf), ("topics.bcf", bcf)):
            made = self.uploaded("comment-files/", name, data)
            self.person.done(f"comment-files/{made['id']}/")

    def test_what_others_change_is_told(self):
        heard, listens = [], threading.Event()

        def listen() -> None:
            path = f"/api/events/?project={self.project}&tab=other"
            with self.person.stream("GET", path, headers={"Accept": "text/event-stream"}) as events:
                for line in events.iter_lines():
                    listens.set()
                    if "Told to others" in line:
                        heard.append(line)
                        return

        listener = threading.Thread(target=listen, daemon=True)
        listener.start()
        self.assertTrue(listens.wait(30))
        self.person.changed(f"sheets/{self.sheet}/", {"title": "Told to others", "version": self.version()})
        listener.join(30)
        self.assertEqual(len(heard), 1)

    def test_a_drafter_plots_and_issues_in_the_browser(self):
        given = {"project": self.project, "spec": {"name": "Bo Lind"}}
        self.person.made("recipients/", given)
        browser = shared().browser(in_3d=False)
        with closing(browser.new_context(**LIKE)) as context:
            page = context.new_page()
            page.set_default_timeout(60_000)
            page.goto(self.launched.address)
            page.get_by_label("Name").fill("ines")
            page.get_by_label("Password").fill(PASSWORD)
            page.get_by_role("button", name="Sign in").click()
            page.get_by_role("heading", name="Projects").wait_for()
            page.goto(f"{self.launched.address}/projects/{self.project}/sheets/{self.sheet}")
            page.get_by_role("button", name="Plot sheet").click()
            with page.expect_download() as download:
                page.get_by_role("link", name="Download PDF").click()
            self.assertTrue(Path(download.value.path()).read_bytes().startswith(b"%PDF"))
            page.goto(f"{self.launched.address}/projects/{self.project}/issue/send")
            ledge = page.get_by_role("region", name="Ledge: issue")
            ledge.get_by_role("textbox", name="Name").fill("By hand")
            ledge.get_by_role("textbox", name="Name").press("Enter")
            ledge.get_by_role("button", name=re.compile("^Issue ")).click()
            page.get_by_role("link", name="Show it in the register").click()
            with page.expect_download() as download:
                page.get_by_role("link", name="Download XLSX").click()
            self.assertTrue(Path(download.value.path()).read_bytes().startswith(b"PK"))

    def test_a_backup_made_meanwhile_is_restored_elsewhere(self):
        logo = self.uploaded("pictures/", "kept.png", png())["id"]
        backup, place = self.folder / "backup.zip", self.folder / "restored"
        for words, data in ((("backup", str(backup)), self.launched.data), (("restore", str(backup)), place)):
            given = {**self.launched.environment, "DUNEFOLD_DATA": str(data)}
            command = [sys.executable, str(ROOT / "dunefold"), *words]
            done = subprocess.run(command, env=given, capture_output=True, text=True)
            self.assertEqual(done.returncode, 0, done.stderr)
        with Launched(place) as elsewhere, closing(Person(elsewhere.address, "ines", PASSWORD)) as person:
            self.assertEqual(person.file(f"pictures/{logo}/pixels/")[:4], b"\x89PNG")
            plots = person.made("plots/", {"project": self.project, "sheets": [self.sheet], "form": "pdf"})
            person.done(f"plots/{plots['id']}/")

    def kill(self, part: str) -> None:
        """Kill a part, and wait until another has taken its place."""
        was = self.launched.parts[part]
        os.kill(was, signal.SIGKILL)
        eventually(lambda: self.launched.parts.get(part, was) != was, f"another {part}")

    def test_whatever_ends_by_itself_is_there_again_and_nothing_is_lost(self):
        for part in ("web-server", "worker", "worker-for-short-jobs"):
            was = self.launched.parts[part]
            os.kill(was, signal.SIGKILL)
            eventually(
                lambda was=was, part=part: self.launched.parts.get(part, was) != was, f"another {part}"
            )
        eventually(self.launched.answers, "the web server to answer")
        self.uploaded("pictures/", "logo.png", png())
        self.assertTrue(self.plotted("svg"))
        # A process for files that was killed is replaced when the next file comes.
        for part in ("web-server", "worker", "worker-for-short-jobs"):
            for pid in self.launched.processes(part):
                os.kill(pid, signal.SIGKILL)
        self.assertTrue(self.plotted("dxf"))
        self.uploaded("pictures/", "logo.png", png())
        self.person.list(f"sheets/{self.sheet}/display/")


class ManyMachinesServedTests(ServedCase):
    """Heavy work is done by `./dunefold work`, which has neither the data nor the database."""

    queue: ClassVar[subprocess.Popen[bytes]]
    port: ClassVar[int]

    @classmethod
    def setUpClass(cls) -> None:
        cls.port = free_port()
        cls.shared = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        cls.start_queue()
        cls.addClassCleanup(lambda: cls.end_queue())
        cls.environment = {
            "DUNEFOLD_QUEUE": f"redis://127.0.0.1:{cls.port}/0",
            "DUNEFOLD_WORK_FILES": str(cls.shared / "on-their-way"),
        }
        cls.enterClassContext(Launcher(cls.shared / "machine", cls.environment, ["work"]))
        super().setUpClass()

    @classmethod
    def start_queue(cls, *given: str) -> None:
        command = ["redis-server", "--port", str(cls.port), "--bind", "127.0.0.1", "--save", "", *given]
        cls.queue = subprocess.Popen(command, cwd=cls.shared, stdout=subprocess.DEVNULL)
        eventually(cls.queue_answers, "the queue to answer")

    @classmethod
    def queue_answers(cls) -> bool:
        with closing(socket.socket()) as probe:
            return probe.connect_ex(("127.0.0.1", cls.port)) == 0

    @classmethod
    def end_queue(cls) -> None:
        cls.queue.kill()
        cls.queue.wait()

    def test_what_is_ordered_is_done_by_the_other_machine_also_when_the_queue_was_restarted(self):
        self.assertTrue(self.plotted("pdf").startswith(b"%PDF"))
        self.issued(forms=["pdf", "dxf"])
        self.end_queue()
        given = {"project": self.project, "sheets": [self.sheet], "form": "svg"}
        plot = self.person.made("plots/", given)
        self.start_queue()
        self.person.done(f"plots/{plot['id']}/")
        self.assertTrue(self.uploaded("pictures/", "logo.png", png())["id"])
        self.launched.check_parts()
