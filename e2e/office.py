"""The real thing for the browser tests: live server, worker, and a browser that is signed in."""

from __future__ import annotations

import re
import sqlite3
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any, ClassVar

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.test.testcases import LiveServerTestCase
from django.utils import timezone
from django.utils.functional import cached_property
from django_tasks_db.models import DBTaskResult
from playwright.sync_api import Browser, Error, Page, expect

from demo.building import write_observatory
from e2e.shared import SIZE, LiveWebServer, shared
from server.buildings.services import import_model
from server.jobs.models import Job, Worker
from server.projects.models import Project
from server.sheets.models import Viewport
from server.tests.committed_case import copied, put_back
from server.views.drawings import order_all_out_of_date

#: How long a step is waited for, and how long the first one that needs the worker, which has to come up;
#: milliseconds.
PATIENCE, FIRST = 40_000, 150_000
#: The view that is annotated.
PLAN = "Plan, Ground floor"
#: Rules of the W3C's guidelines for access, as axe-core tells them; nothing of any weight may remain.
AXE = settings.ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js"
FIND = """async () => (await axe.run(document, {resultTypes: ["violations"]})).violations
    .flatMap((v) => v.nodes.map((n) => `${v.id} (${v.impact}): ${n.html.slice(0, 160)}`))"""


class Office(LiveServerTestCase):
    """A drafter at the interface, with web and worker running as they do for real."""

    server_thread_class = LiveWebServer

    #: Whether the tests look at the building in 3D.
    in_3d = False
    #: What there was in the database before the first test, with which others begin.
    _empty: ClassVar[sqlite3.Connection | None] = None
    _row: ClassVar[Worker]
    browser: Browser

    @classmethod
    def _start_server_thread(cls) -> None:
        if shared().server is None:
            super()._start_server_thread()
            shared().server = cls.server_thread
        cls.server_thread = shared().server

    @classmethod
    def _terminate_thread(cls) -> None:
        """Leave the server to those that come after."""

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.browser = shared().browser(in_3d=cls.in_3d)

    def setUp(self) -> None:
        self.furnish()
        self.have_worker()
        expect.set_options(timeout=PATIENCE)
        self.page = shared().page(in_3d=self.in_3d)
        self.page.context.set_default_timeout(PATIENCE)
        self.addCleanup(self.leave_page)
        self.problems: list[str] = []
        self.page.on("pageerror", self.hear)
        self.addCleanup(lambda: self.assertEqual(self.problems, []))
        self.come_in()

    def hear(self, error: Error) -> None:
        self.problems.append(str(error))

    def leave_page(self) -> None:
        """Leave the page to the next test as a new one would be; one of a test that failed goes."""
        context = self.page.context
        context.set_offline(False)
        context.clear_cookies()
        self.page.remove_listener("pageerror", self.hear)
        if not self._outcome.success:
            self.page.close()
            return
        self.page.goto(f"{self.live_server_url}/health/live")
        self.page.evaluate("() => sessionStorage.clear()")
        self.page.set_viewport_size(SIZE)
        self.page.mouse.move(0, 0)

    maxDiff = None

    def come_in(self) -> None:
        self.sign_in(self.page)

    def axe(self, page: Page, where: str) -> None:
        """Nothing of a page stands in anybody's way. The page is one that lets in other scripts than its own
        (`bypass_csp`)."""
        # A tooltip that comes or goes is half seen through.
        page.mouse.move(0, 0)
        expect(page.get_by_role("tooltip")).to_have_count(0)
        page.evaluate(AXE.read_text())
        with self.subTest(where):
            self.assertEqual("\n".join(page.evaluate(FIND)), "")

    def have_worker(self) -> None:
        """Have the one worker of all tests: each finds it warm, and leaves it idle. Its row goes with all
        that was in the database, and is put back."""
        pid, is_new = shared().worker()
        if is_new:
            self.eventually_so(lambda: Worker.objects.filter(pid=pid).exists())
            Office._row = Worker.objects.get(pid=pid)
        else:
            Worker.objects.all().delete()
            Office._row.seen = timezone.now()
            # It may have put it back by itself meanwhile.
            Office._row.save()
        self.addCleanup(self.rest)

    def rest(self) -> None:
        """Leave nothing for the worker to do."""
        Job.objects.filter(state=Job.State.WAITING).update(state=Job.State.CANCELLED)
        Job.objects.filter(state=Job.State.RUNNING).update(cancel_wanted=True)
        self.eventually_so(lambda: not DBTaskResult.objects.exclude(finished_at__isnull=False).exists())

    def all_done(self) -> None:
        """Wait until the worker has done all that was ordered."""
        self.eventually_so(lambda: not Job.objects.filter(state__in=Job.ACTIVE).exists())

    def eventually_so(self, holds: Callable[[], bool]) -> None:
        """Wait until something holds in the database."""
        for _ in range(FIRST // 50):
            if holds():
                return
            time.sleep(0.05)
        self.fail("The worker is not as it should be.")

    @classmethod
    def _fixture_setup(cls) -> None:
        if Office._empty is None:
            Office._empty = copied()
        else:
            put_back(Office._empty)

    def _fixture_teardown(self) -> None:
        """Leave all as it is: the next test begins with a copy, and to empty each table takes longer."""

    def furnish(self) -> None:
        """Fill the database before anybody signs in."""
        get_user_model().objects.create_user("ines", password="samphire-88")

    def sign_in(self, page: Page, name: str = "ines") -> None:
        page.goto(self.live_server_url)
        page.get_by_label("Name").fill(name)
        page.get_by_label("Password").fill("samphire-88")
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("heading", name="Projects")).to_be_visible()

    def add_project(self, name: str) -> None:
        self.page.get_by_label("Name of a new project").fill(name)
        self.page.get_by_role("button", name="Add project").click()
        expect(self.page.get_by_role("region", name="Import the building")).to_be_visible()

    def import_model(self, path: Path) -> None:
        self.page.get_by_label("Building file").set_input_files(path)
        expect(self.page.get_by_text("Overall size")).to_be_visible(timeout=FIRST)

    def open_sheets(self) -> None:
        self.page.get_by_role("navigation", name="Stations").get_by_role("link", name="Sheets").click()

    # On the board

    @property
    def board(self) -> Any:
        return self.page.locator("#board")

    def pull_out_views(self) -> None:
        self.page.get_by_role("button", name="Views", exact=True).click()

    def drag_card(self, name: str, to: tuple[float, float]) -> Any:
        """Drag a view's card to a point of the board, given as shares of its width and height."""
        card = self.page.get_by_role("button", name=f"Place {name}")
        expect(card).to_have_attribute("aria-disabled", "false")
        card.scroll_into_view_if_needed()
        box, board = card.bounding_box(), self.board.bounding_box()
        self.page.mouse.move(box["x"] + box["width"] / 2, box["y"] + 40)
        self.page.mouse.down()
        self.page.mouse.move(box["x"] + box["width"] + 40, box["y"] + 60)
        self.page.mouse.move(
            board["x"] + board["width"] * to[0], board["y"] + board["height"] * to[1], steps=4
        )
        self.page.mouse.up()
        viewport = self.viewport(name)
        expect(viewport).to_be_visible()
        return viewport

    def place_by_key(self, view: str) -> None:
        self.pull_out_views()
        card = self.page.get_by_role("button", name=f"Place {view}")
        expect(card).to_have_attribute("aria-disabled", "false")
        card.press("Enter")

    def choose_scale(self, scale: str) -> None:
        field = self.page.get_by_role("combobox", name="True scale")
        field.fill(scale)
        field.press("Enter")
        expect(field).to_have_value(scale)

    def eventually(self, holds: Callable[[], bool]) -> None:
        """Wait until something holds that the page does not say of itself, such as where a thing lies."""
        for _ in range(FIRST // 100):
            if holds():
                return
            self.page.wait_for_timeout(100)
        self.fail("What was waited for did not come to hold.")

    def saved(self) -> None:
        """Wait until every change so far has reached the server."""
        self.page.wait_for_function("() => !sessionStorage.getItem('dunefold.unsaved')")

    def fill(self, label: str, value: str) -> None:
        field = self.page.get_by_role("textbox", name=label, exact=True)
        field.fill(value)
        field.press("Enter")

    def plotted(self, button: str = "Plot sheet") -> bytes:
        """The PDF of the sheet on the board, or of the set, as it is downloaded."""
        self.page.get_by_role("button", name=button).click()
        first = self.page.get_by_role("img", name="Page 1")
        expect(first).to_have_attribute("data-painted", "yes", timeout=FIRST)
        with self.page.expect_download() as download:
            self.page.get_by_role("link", name="Download PDF").click()
        self.page.get_by_role("button", name="Close").click()
        return Path(download.value.path()).read_bytes()

    def viewport(self, name: str) -> Any:
        return self.page.get_by_role("button", name=f": {name},")

    def tick(self, box: Any, *, on: bool = True) -> None:
        """Tick a box of something that is saved: it shows what holds a moment after the click."""
        box.click()
        expect(box).to_be_checked(checked=on)

    def figure(self, label: str) -> float:
        return float(self.page.get_by_role("textbox", name=label, exact=True).input_value())

    def shows(self, label: str, value: float, within: float = 0.005) -> None:
        """Wait until a field shows a figure: it is painted a little after what changed it."""
        self.eventually(lambda: abs(self.figure(label) - value) < within)

    def drag(self, locator: Any, dx: float, dy: float) -> None:
        """Drag something from its middle, in pixels, once it lies still."""
        locator.element_handle().wait_for_element_state("stable")
        box = locator.bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + dx / 2, y + dy / 2)
        self.page.mouse.move(x + dx, y + dy)
        self.page.mouse.up()


class PreparedOffice(Office):
    """A drafter with a project whose building is read and whose plain views are drawn: prepared once for all
    tests of a run, and copied into the database of each."""

    _prepared: ClassVar[sqlite3.Connection | None] = None
    project: Project

    def furnish(self) -> None:
        if PreparedOffice._prepared is None:
            super().furnish()
            user = get_user_model().objects.get(username="ines")
            project = Project.objects.create(owner=user, name="Bird observatory")
            with tempfile.TemporaryDirectory() as folder:
                file = Path(folder) / "observatory.ifc"
                write_observatory(str(file))
                import_model(project, SimpleUploadedFile(file.name, file.read_bytes()), user)
            self.have_worker()
            self.all_done()
            PreparedOffice._prepared = copied()
        else:
            put_back(PreparedOffice._prepared)
        self.project = Project.objects.get(name="Bird observatory")

    def come_in(self) -> None:
        """Be signed in without a look at the page for it: other tests have that."""
        session = self.drafter.cookies[settings.SESSION_COOKIE_NAME].value
        self.page.context.add_cookies(
            [{"name": settings.SESSION_COOKIE_NAME, "value": session, "url": self.live_server_url}]
        )

    @cached_property
    def drafter(self) -> Client:
        """Whoever sits at the browser, without it."""
        drafter = Client()
        drafter.force_login(self.project.owner, backend="server.accounts.remembered.Users")
        return drafter

    def open(self, station: str) -> None:
        self.page.goto(f"{self.live_server_url}/projects/{self.project.pk}/{station}")


class SheetsOffice(PreparedOffice):
    """A drafter at the Sheets station, with the demo building and one empty sheet on the board."""

    def furnish(self) -> None:
        super().furnish()
        sheet = {"project": str(self.project.pk), "paper": "A3", "orientation": "landscape"}
        made = self.drafter.post("/api/sheets/", sheet, content_type="application/json")
        self.assertEqual(made.status_code, 201)

    def setUp(self) -> None:
        super().setUp()
        self.open("sheets")
        expect(self.register.locator("[aria-current=page]")).to_contain_text("A-01")

    @property
    def register(self) -> Any:
        return self.page.get_by_role("navigation", name="Register")

    def open_sheet(self, number: str) -> None:
        row = self.register.get_by_role("button", name=f"Sheet {number}")
        row.click()
        expect(row).to_have_attribute("aria-current", "page")

    @property
    def ledge(self) -> Any:
        return self.page.get_by_role("region", name="Ledge: viewport")

    def row(self, name: str) -> Viewport:
        self.saved()
        return Viewport.objects.select_related("view__linework").get(view__name=name)

    def choose(self, field: str, option: str) -> None:
        self.page.get_by_role("combobox", name=field, exact=True).click()
        self.page.get_by_role("option", name=option, exact=True).click()

    def more(self, command: str) -> None:
        self.page.get_by_role("button", name="More…").click()
        self.page.get_by_role("menuitem", name=command).click()

    def add_sheets(self, *titles: str) -> None:
        self.page.get_by_role("button", name="Add several sheets").click()
        self.page.get_by_role("textbox", name="Titles").fill("\n".join(titles))
        several = "sheet" if len(titles) == 1 else "sheets"
        self.page.get_by_role("button", name=f"Add {len(titles)} {several}", exact=True).click()
        made = self.register.get_by_role("button", name=re.compile(f"^Sheet \\S+ {re.escape(titles[0])}"))
        expect(made).to_have_attribute("aria-current", "page")

    def pixels(self, name: str) -> float:
        """Pixels of the screen for a millimetre of the sheet."""
        return float(self.viewport(name).bounding_box()["width"]) / self.row(name).width

    def fill_number(self, number: str) -> None:
        self.saved()
        self.page.locator("#board").press("Escape")
        self.fill("Number", number)
        self.saved()


class PlanOffice(SheetsOffice):
    """A drafter who annotates a plan."""

    def piece(self, name: str | re.Pattern[str]) -> Any:
        # The tool that draws a kind of piece is named after it, too.
        return self.page.locator("[data-piece]").and_(self.page.get_by_role("button", name=name))

    @cached_property
    def frame(self) -> tuple[dict[str, float], Viewport]:
        """Where the plan lies on the screen, and its row; nothing moves it in these tests."""
        return self.viewport(PLAN).bounding_box(), self.row(PLAN)

    def at(self, u: float, v: float) -> tuple[float, float]:
        """Where a point of the plan is on the screen."""
        box, row = self.frame
        pixels = box["width"] / row.width * float(row.scale.ratio)
        x = box["x"] + box["width"] / 2 + (u - row.centre_u) * pixels
        return x, box["y"] + box["height"] / 2 - (v - row.centre_v) * pixels

    def click(self, u: float, v: float) -> None:
        self.page.mouse.move(*self.at(u, v))
        self.page.mouse.click(*self.at(u, v))

    def next_version(self) -> None:
        """The second version of the building is brought in by somebody else, and everything is drawn anew."""
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "second.ifc"
            write_observatory(str(path), revised=True)
            import_model(self.project, SimpleUploadedFile(path.name, path.read_bytes()), self.project.owner)
        self.all_done()
        order_all_out_of_date(self.project)
        self.all_done()
        self.page.reload()
        expect(self.viewport(PLAN)).to_be_visible()

    def place_plan(self) -> None:
        self.place_by_key(PLAN)
        expect(self.viewport(PLAN)).to_be_focused()
        expect(self.page.locator("#board")).to_have_attribute("data-painted", "yes")
        self.page.keyboard.press("Escape")
