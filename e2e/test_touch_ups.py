"""A drafter's eraser that is remembered: lines of a drawing are hidden, kept through a new version of the
building, and taken back."""

from __future__ import annotations

import numpy as np
from playwright.sync_api import expect

from drafting.tests.pdf_reading import strokes
from e2e.office import PLAN, PlanOffice
from server.touchups.models import TouchUp

#: The face of the south wall from the window that is widened in the second version to the next one; u, mm.
LEFT, WIDENED, RIGHT = 7200.0, 7800.0, 9600.0
MIDDLE = 8700.0


class TouchUpTests(PlanOffice):
    def begin(self) -> None:
        self.place_plan()
        self.viewport(PLAN).click(position={"x": 8, "y": 8})
        self.page.keyboard.press("e")
        expect(self.status).to_contain_text("Click a line")

    def leave(self) -> None:
        """Done with it, and nothing is selected."""
        self.panel.get_by_role("button", name="Done").click()
        self.page.keyboard.press("Escape")

    @property
    def panel(self):
        return self.page.get_by_role("region", name="Ledge: touch up")

    @property
    def status(self):
        return self.panel.get_by_role("status")

    def drawn(self, u0: float, u1: float, *, wider_than: float = 0.0) -> float:
        """How much of the wall's face is plotted between two places, real mm."""
        _, row = self.frame
        ratio = float(row.scale.ratio)
        y = row.y + row.height / 2 - row.centre_v * ratio
        x0, x1 = (row.x + row.width / 2 + (u - row.centre_u) * ratio for u in (u0, u1))
        length = 0.0
        for stroke in strokes(self.plotted()):
            if stroke.width <= wider_than or "Grid" in stroke.layer:
                continue
            for a, b in zip(stroke.points, stroke.points[1:], strict=False):
                if max(abs(a[1] - y), abs(b[1] - y)) < 0.02:
                    low, high = np.clip(sorted((a[0], b[0])), x0, x1)
                    length += float(high - low)
        return length / ratio

    def test_a_line_is_hidden_stays_so_in_the_next_version_and_is_taken_back(self):
        page = self.page
        self.begin()
        self.click(MIDDLE, 0.0)
        expect(self.status).to_contain_text("line of 2400 mm of a wall")
        page.keyboard.press("Delete")
        expect(page.locator("[data-touched=hidden]")).to_have_count(1)
        expect(page.get_by_role("button", name="1 touch-up")).to_be_visible()
        self.saved()
        page.keyboard.press("Escape")
        expect(self.ledge.get_by_role("button", name="Touched up (1)")).to_be_visible()
        page.keyboard.press("Escape")
        self.assertLess(self.drawn(LEFT, RIGHT), 60.0)
        self.assertAlmostEqual(self.drawn(RIGHT + 1200, 12_000.0), 1200.0, delta=60.0)

        self.next_version()
        self.assertLess(self.drawn(WIDENED, RIGHT), 60.0)
        self.viewport(PLAN).click(position={"x": 8, "y": 8})
        self.ledge.get_by_role("button", name="Touched up (1)").click()
        page.get_by_role("button", name="1 touch-up").click()
        page.get_by_role("button", name="Delete: line of 2400 mm").click()
        expect(page.locator("[data-touched=hidden]")).to_have_count(0)
        self.saved()
        self.assertFalse(TouchUp.objects.exists())
        self.leave()
        self.assertAlmostEqual(self.drawn(WIDENED, RIGHT), RIGHT - WIDENED, delta=60.0)
        page.keyboard.press("Control+z")
        self.eventually(lambda: TouchUp.objects.count() == 1)

    def test_a_part_gets_another_pen_in_one_viewport_alone_and_all_alike_are_hidden(self):
        page = self.page
        self.begin()
        self.choose("Touched up in", "This viewport alone")
        page.get_by_role("button", name="Part", exact=True).click()
        self.click(LEFT, 0.0)
        expect(self.status).to_contain_text("where the part ends")
        self.click(RIGHT, 0.0)
        expect(self.status).to_contain_text("where a part of a line begins")
        self.choose("Width", "1.40 mm")
        expect(page.locator("[data-touched=redrawn]")).to_have_count(1)
        self.saved()
        made = TouchUp.objects.get()
        self.assertEqual((made.viewport_id, made.spec["change"]["stroke"]["width"]), (self.frame[1].pk, 1.4))
        page.get_by_role("button", name="Lines", exact=True).click()
        self.click(MIDDLE, 0.0)
        self.choose("Choose all alike", "All lines of every wall")
        expect(self.status).to_contain_text("All lines of every wall")
        page.get_by_role("button", name="Hide", exact=True).click()
        expect(page.get_by_role("button", name="2 touch-ups")).to_be_visible()
        self.saved()
        self.leave()
        self.assertEqual(self.drawn(LEFT, RIGHT, wider_than=1.3), 0.0)
        page.keyboard.press("Control+z")
        self.eventually(lambda: TouchUp.objects.count() == 1)
        self.assertAlmostEqual(self.drawn(LEFT, RIGHT, wider_than=1.3), RIGHT - LEFT, delta=60.0)
