"""The screen in another language, chosen by whoever sits before it."""

from __future__ import annotations

import re

from playwright.sync_api import expect

from e2e.office import FIRST, PreparedOffice
from server.accounts.models import Preferences
from server.views.models import View

STATIONS = ("Modell", "Darstellungen", "Blätter", "Prüfung", "Ausgabe")


class LanguageTests(PreparedOffice):
    def setUp(self) -> None:
        super().setUp()
        self.open("sheets")

    def prefer(self, button: str, field: str, language: str) -> None:
        page = self.page
        page.get_by_role("button", name=button, exact=True).click()
        # By a key: the dialog grows while its lists arrive, and what is clicked moves.
        page.get_by_role("combobox", name=field).press("Enter")
        page.get_by_role("option", name=language).click()

    def speak(self, button: str, field: str, language: str, name: str) -> None:
        self.prefer(button, field, language)
        page = self.page
        expect(page.get_by_role("navigation", name=name)).to_be_visible(timeout=FIRST)

    def test_it_is_chosen_with_the_account_and_holds_at_every_station(self) -> None:
        page = self.page
        self.speak("ines", "Language of the screen", "Deutsch", "Stationen")
        expect(page.locator("html")).to_have_attribute("lang", "de")
        page.get_by_role("button", name="Das erste Blatt hinzufügen").click()
        register = page.get_by_role("navigation", name="Register")
        expect(register.locator("[aria-current=page]")).to_contain_text("A-01")
        expect(register).to_contain_text("1 Blatt")
        expect(page.get_by_role("region", name="Leiste: Blatt")).to_be_visible()
        page.get_by_role("button", name="Rückgängig").click()
        expect(page.get_by_text("Das Register ist leer.")).to_be_visible()
        page.get_by_role("button", name="Wiederholen").click()
        expect(register.locator("[aria-current=page]")).to_contain_text("A-01")
        # What the server has found is told in it too.
        page.get_by_role("link", name="Prüfung").click()
        expect(page.get_by_text("Nichts steht darauf. Platzieren Sie eine Darstellung")).to_be_visible(
            timeout=FIRST
        )
        for station in STATIONS:
            page.get_by_role("navigation", name="Stationen").get_by_role("link", name=station).click()
            expect(page).to_have_title(re.compile("Dunefold"))
        self.speak("ines", "Sprache des Bildschirms", "English", "Stations")
        self.assertEqual(Preferences.objects.get(user__username="ines").language, "en")

    def test_new_views_are_named_in_the_language_that_one_prefers(self) -> None:
        page = self.page
        self.prefer("ines", "Sheets of new projects", "Deutsch")
        page.get_by_role("button", name="Close", exact=True).click()
        self.eventually(lambda: Preferences.objects.filter(titles="de").exists())
        View.objects.filter(name="South elevation").delete()
        page.get_by_role("navigation", name="Stations").get_by_role("link", name="Views").click()
        page.get_by_role("button", name="Make the standard views").click()
        expect(page.get_by_role("button", name="Open Südansicht")).to_be_visible(timeout=FIRST)
