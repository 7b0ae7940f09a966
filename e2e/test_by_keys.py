"""A sheet is made, changed and plotted by keys alone."""

from __future__ import annotations

from playwright.sync_api import expect

from e2e.office import FIRST, PreparedOffice
from server.sheets.models import Viewport

#: More stops than any page has.
MAX_PRESSES = 160
NAME = """() => {
  const at = document.activeElement;
  const name = at?.getAttribute("aria-label") || at?.innerText || at?.labels?.[0]?.innerText || at?.title;
  return (name ?? "").trim().replace(/\\s+/g, " ");
}"""


class KeyTests(PreparedOffice):
    def tab_to(self, name: str) -> None:
        """Go from stop to stop until one has a name that begins so."""
        seen = []
        for _ in range(MAX_PRESSES):
            self.page.keyboard.press("Tab")
            seen.append(self.page.evaluate(NAME))
            if seen[-1].startswith(name):
                return
        self.fail(f"No stop is called “{name}”, but {seen}.")

    def test_from_signing_in_to_a_plotted_sheet(self) -> None:
        page, keys = self.page, self.page.keyboard
        page.context.clear_cookies()
        page.goto(self.live_server_url)
        expect(page.get_by_role("button", name="Sign in")).to_be_visible()
        for text in ("ines", "samphire-88"):
            self.tab_to("Name" if text == "ines" else "Password")
            keys.type(text)
        keys.press("Enter")
        expect(page.get_by_role("heading", name="Projects")).to_be_visible(timeout=FIRST)
        expect(page.get_by_role("link", name="No sheets yet Bird observatory")).to_be_visible()
        self.tab_to("No sheets yet Bird observatory")
        keys.press("Enter")
        expect(page.get_by_role("navigation", name="Stations")).to_be_visible()
        keys.press("Control+k")
        keys.type("Sheets")
        keys.press("Enter")
        expect(page.get_by_role("button", name="Add the first sheet")).to_be_visible()
        self.tab_to("Add the first sheet")
        keys.press("Enter")
        expect(
            page.get_by_role("navigation", name="Register").locator("[aria-current=page]")
        ).to_contain_text("A-01")

        keys.press("v")
        expect(page.get_by_role("button", name="Place South elevation")).to_be_visible()
        self.tab_to("Place South elevation")
        keys.press("Enter")
        placed = page.get_by_role("button", name=": South elevation,")
        expect(placed).to_be_focused()
        self.eventually(lambda: Viewport.objects.count() == 1)
        before = Viewport.objects.get()
        keys.press("PageDown")
        self.eventually(lambda: Viewport.objects.get().scale != before.scale)
        for _ in range(3):
            keys.press("ArrowRight")
        self.eventually(lambda: abs(Viewport.objects.get().x - before.x) > 2.9)

        keys.press("p")
        expect(page.get_by_role("img", name="Page 1")).to_have_attribute("data-painted", "yes", timeout=FIRST)
        self.tab_to("Download PDF")
        with page.expect_download() as download:
            keys.press("Enter")
        self.assertTrue(download.value.suggested_filename.endswith(".pdf"))
        keys.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)
        keys.press("Control+z")
        expect(page.get_by_text("Undone")).to_be_visible()
