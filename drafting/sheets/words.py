"""What sheets say by themselves, in the language of their project (ISO 7200's field “language”)."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from drafting.shading.appearance import Light


@dataclass(frozen=True)
class SheetWords:
    """The words of one language.

    Attributes:
        language: its ISO 639 code.
        captions: by the English ones, those of title blocks, revision tables and the list of drawings.
        months: January first.
        sheet_of: with a place for the number of the sheet and for how many there are.
        sun: with a place for the day and hour.
        day: with places for the day and the month.
    """

    language: str = "en"
    captions: Mapping[str, str] = field(default_factory=dict)
    months: tuple[str, ...] = (
        "January", "February", "March", "April", "May", "June",
        "July", "August", "September", "October", "November", "December",
    )  # fmt: skip
    not_to_scale: str = "Not to scale"
    as_shown: str = "As shown"
    sheet_of: str = "{} of {}"
    sun: str = "sun of {}"
    day: str = "{} {}"

    def caption(self, english: str) -> str:
        """A caption in this language; as it is where somebody has worded it otherwise.

        >>> words_in("de").caption("Scale"), words_in("de").caption("House no.")
        ('Maßstab', 'House no.')
        """
        return self.captions.get(english, english)

    def scale(self, scales: Sequence[str]) -> str:
        """The one scale that there is; that each drawing says its own where they differ; a dash where there
        is none.

        >>> ENGLISH.scale(["1:50", "1:50"]), ENGLISH.scale(["1:50", "1:100"]), ENGLISH.scale([])
        ('1:50', 'As shown', '–')
        """
        different = set(scales)
        return next(iter(different)) if len(different) == 1 else self.as_shown if different else "–"

    def sun_of(self, light: Light) -> str:
        """When the sun stands so; blank for the fixed light.

        >>> words_in("de").sun_of(Light("sun", 6, 21, 15.5))
        'Sonne vom 21. Juni, 15:30'
        """
        if light.source != "sun":
            return ""
        hour, minute = divmod(round(light.hour * 60), 60)
        day = self.day.format(light.day, self.months[light.month - 1])
        return self.sun.format(f"{day}, {hour}:{minute:02}")


ENGLISH = SheetWords()
_GERMAN = SheetWords(
    "de",
    {
        "Practice": "Büro",
        "Department": "Abteilung",
        "Technical reference": "Technische Referenz",
        "Project": "Projekt",
        "Project number": "Projektnummer",
        "Client": "Bauherr",
        "Site": "Bauort",
        "Language": "Sprache",
        "Sheet number": "Blattnummer",
        "Title": "Titel",
        "Supplementary title": "Zusatztitel",
        "Document type": "Dokumentenart",
        "Status": "Status",
        "Purpose": "Zweck",
        "Drawn by": "Gezeichnet",
        "Drawn on": "Gezeichnet am",
        "Checked by": "Geprüft",
        "Checked on": "Geprüft am",
        "Approved by": "Freigegeben",
        "Approved on": "Freigegeben am",
        "Revision": "Index",
        "Date of issue": "Ausgabedatum",
        "Sheet": "Blatt",
        "Scale": "Maßstab",
        "Paper": "Format",
        "Drawings": "Zeichnungen",
        "File name": "Dateiname",
        "Plotted on": "Geplottet am",
        "Date": "Datum",
        "Description": "Änderung",
        "Initials": "Name",
        "Number": "Nummer",
        "List of drawings": "Planliste",
    },
    (
        "Januar", "Februar", "März", "April", "Mai", "Juni",
        "Juli", "August", "September", "Oktober", "November", "Dezember",
    ),
    "Ohne Maßstab",
    "Wie angegeben",
    "{} von {}",
    "Sonne vom {}",
    "{}. {}",
)  # fmt: skip
#: By what people write in the field: the code, or the name in the language itself or in English.
_KNOWN = {"en": ENGLISH, "english": ENGLISH, "de": _GERMAN, "deutsch": _GERMAN, "german": _GERMAN}


def language_of(given: str) -> str | None:
    """The code of a language that sheets have words in, by what its field says; None where there are none.

    >>> language_of("Deutsch"), language_of("de-AT"), language_of("EN"), language_of("fr")
    ('de', 'de', 'en', None)
    """
    known = _KNOWN.get(given.strip().casefold().partition("-")[0])
    return known.language if known else None


def words_in(language: str) -> SheetWords:
    """The words of a language, by its field; English ones where there are none in it."""
    return _KNOWN[language_of(language) or "en"]
