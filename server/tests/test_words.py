"""What the server says on the screen is known in every language that the screen has."""

from __future__ import annotations

import json
from pathlib import Path
from unittest import TestCase

from drafting.checks.rules import all_rules
from drafting.sheets.fields import FIELDS
from server.accounts.models import Preferences

WORDS = Path(__file__).resolve().parents[2] / "web" / "src" / "words"


class WordsTests(TestCase):
    def test_rules_their_limits_and_fields_have_names_in_every_language(self) -> None:
        names = {rule.name for rule in all_rules()}
        names |= {limit.name for rule in all_rules() for limit in rule.limits}
        names |= {field.caption for field in FIELDS.values()}
        for language in set(Preferences.Language.values) - {"en"}:
            known = json.loads((WORDS / f"server.{language}.json").read_text())
            self.assertEqual(names - set(known), set())

    def test_every_language_that_can_be_preferred_has_its_messages(self) -> None:
        for language in Preferences.Language.values:
            self.assertTrue(json.loads((WORDS / f"{language}.json").read_text()))
