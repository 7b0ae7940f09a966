"""Numbers of sheets: patterns with discipline, type and a running number, and what is doubled or left out."""

from __future__ import annotations

import re
from bisect import bisect_left
from collections import Counter, defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache

from drafting.errors import SheetError

#: What a pattern may hold in braces.
TOKENS = ("discipline", "type", "n")
STANDARD = "A-{n:02}"
_TOKEN = re.compile(r"\{(\w*)(?::0(\d))?\}")
_TRAILING = re.compile(r"(.*?)(\d+)(\D*)")
MAX_LETTERS = 40


@dataclass(frozen=True)
class Numbered:
    """A sheet as it is numbered: its number, and the discipline and type that a pattern may name."""

    number: str
    discipline: str = ""
    type: str = ""


@dataclass(frozen=True)
class Pattern:
    """How sheets are numbered, such as `{discipline}-{type}{n:02}`: A-103 is the third of type 1."""

    text: str

    def __post_init__(self) -> None:
        """
        Raises:
            SheetError: it has no running number, or braces that mean nothing.
        """
        names = [name for name, _ in _TOKEN.findall(self.text)]
        if len(self.text) > MAX_LETTERS:
            raise SheetError(f"A pattern of numbers has at most {MAX_LETTERS} letters.")
        if names.count("n") != 1:
            raise SheetError(f"“{self.text}” needs one running number, such as {{n:02}}.")
        unknown = [name for name in names if name not in TOKENS]
        if unknown or re.search(r"[{}]", _TOKEN.sub("", self.text)):
            raise SheetError(
                f"“{self.text}” is no pattern. In braces, use {', '.join(TOKENS)}, such as {{n:02}}."
            )

    def number(self, sheet: Numbered, n: int) -> str:
        """The number of the n-th sheet of a discipline and type."""

        def value(match: re.Match[str]) -> str:
            name, digits = match.groups()
            return f"{n:0{digits or 1}}" if name == "n" else str(getattr(sheet, name))

        return _TOKEN.sub(value, self.text)

    def running(self, sheet: Numbered) -> int | None:
        """Which n a sheet's number has; None for one that is not numbered after the pattern."""
        return _running(self.text, sheet)


@lru_cache(maxsize=8192)
def _running(pattern: str, sheet: Numbered) -> int | None:
    # Each new sheet of a batch looks at the numbers of all others again.
    parts = (
        r"(\d+)" if match and match[1] == "n" else re.escape(getattr(sheet, match[1]) if match else text)
        for text, match in _pieces(pattern)
    )
    found = re.fullmatch("".join(parts), sheet.number)
    return int(found[1]) if found else None


def _pieces(text: str) -> list[tuple[str, re.Match[str] | None]]:
    pieces: list[tuple[str, re.Match[str] | None]] = []
    at = 0
    for match in _TOKEN.finditer(text):
        pieces += [(text[at : match.start()], None), (match[0], match)]
        at = match.end()
    return [*pieces, (text[at:], None)]


@lru_cache(maxsize=8192)
def _series(pattern: Pattern, sheet: Numbered) -> str:
    """Sheets of one series are counted together: they differ in nothing but the running number."""
    return pattern.number(sheet, 0)


class Numbering:
    """Numbers for new sheets, one after the other: each series is counted on from the highest there is.

    Where no sheet is numbered after the pattern, the last one's own figures are counted on.

    >>> Numbering(Pattern("A-{n:02}"), [Numbered("A-07")]).next(Numbered(""))
    'A-08'
    """

    def __init__(self, pattern: Pattern, sheets: Iterable[Numbered]) -> None:
        self._pattern = pattern
        self._highest: dict[str, int] = {}
        self._last: str | None = None
        for sheet in sheets:
            self.add(sheet)

    def add(self, sheet: Numbered) -> None:
        """Let there be one more sheet, the last."""
        self._last = sheet.number
        running = self._pattern.running(sheet)
        if running is not None:
            series = _series(self._pattern, sheet)
            self._highest[series] = max(running, self._highest.get(series, 0))

    def next(self, sheet: Numbered) -> str:
        """The number of a new sheet, which has none yet."""
        own = [] if self._last is None or self._highest else _counted_on(self._last, 2)[1:]
        if own:
            return own[0]
        return self._pattern.number(sheet, self._highest.get(_series(self._pattern, sheet), 0) + 1)


def _counted_on(number: str, count: int) -> list[str]:
    """A number and those that follow it by its own figures; none for one without figures."""
    found = _TRAILING.fullmatch(number)
    if found is None:
        return []
    before, figures, after = found.groups()
    return [f"{before}{int(figures) + k:0{len(figures)}}{after}" for k in range(count)]


def numbers_from(pattern: Pattern, sheets: Sequence[Numbered]) -> list[str]:
    """The numbers of sheets in their order, counted on in each series from its first one's.

    A first number that does not follow the pattern is counted on from its own figures.

    Raises:
        SheetError: the first sheet's number has no figure to count on from.
    """
    first = sheets[0]
    if pattern.running(first) is None:
        own = _counted_on(first.number, len(sheets))
        if not own:
            raise SheetError(f"“{first.number}” has no figure to count on from. Give it one, such as A-01.")
        return own
    counts: dict[str, int] = {}
    numbers = []
    for sheet in sheets:
        series = _series(pattern, sheet)
        counts[series] = counts[series] + 1 if series in counts else pattern.running(sheet) or 1
        numbers.append(pattern.number(sheet, counts[series]))
    return numbers


def number_warnings(pattern: Pattern, sheets: Sequence[Numbered]) -> list[str]:
    """What is odd about each sheet's number, blank where nothing is: one that another has too, one that is
    left out before it."""
    often = Counter(sheet.number for sheet in sheets)
    series: dict[str, list[int]] = defaultdict(list)
    for sheet in sheets:
        n = pattern.running(sheet)
        if n is not None:
            series[_series(pattern, sheet)].append(n)
    ordered = {name: sorted(set(numbers)) for name, numbers in series.items()}
    return [
        _warning(pattern, sheet, often[sheet.number], ordered.get(_series(pattern, sheet), []))
        for sheet in sheets
    ]


def _warning(pattern: Pattern, sheet: Numbered, often: int, ordered: Sequence[int]) -> str:
    if often > 1:
        return "number twice"
    n = pattern.running(sheet)
    place = bisect_left(ordered, n) if n is not None else 0
    if n is None or place == 0 or ordered[place - 1] == n - 1:
        return ""
    first, last = pattern.number(sheet, ordered[place - 1] + 1), pattern.number(sheet, n - 1)
    return f"no {first}" if first == last else f"no {first} to {last}"
