"""Comments from a PDF: its standard annotations (ISO 32000-2, 12.5.6) at their places on the sheets."""

from __future__ import annotations

import hashlib
import math
from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from datetime import UTC, datetime, timedelta, timezone
from pathlib import Path
from typing import Any

import pikepdf
import pypdfium2

from drafting.errors import SheetError
from drafting.geometry.boxes import Point
from drafting.issuing.frozen import FrozenSheet
from drafting.progress import Progress, silent
from drafting.review.comments import (
    MAX_NAME,
    MAX_TEXT,
    NO_NAME,
    ReadFile,
    ReadSheet,
    WrittenAnswer,
    WrittenComment,
)
from drafting.review.marks import (
    MAX_MARKS,
    MAX_POINTS,
    AnyMark,
    AreaMark,
    ArrowMark,
    CloudMark,
    LengthMark,
    LineMark,
    PointMark,
    TextMark,
    parse_marks,
)
from drafting.review.recognising import Candidate, OnSheet, recognised
from drafting.schema import dump

#: As many annotations and pages of a file are read.
MAX_ANNOTATIONS, MAX_PAGES = 10_000, 1_000
#: A round outline is so many straight sides.
_SIDES = 32
#: What is no comment: fields of forms, links, and the windows of comments.
_NOTHING = {"/Popup", "/Link", "/Widget", "/TrapNet", "/PrinterMark"}

Place = Callable[[float, float], Point]


def read_pdf(source: Path, sheets: Sequence[FrozenSheet], progress: Progress = silent) -> ReadFile:
    """Read the comments of a PDF.

    Args:
        sheets: those that its pages may be, the likeliest first.

    Raises:
        SheetError: it is no PDF, is locked, or none of its pages is one of the sheets.
    """
    try:
        with pikepdf.open(source) as pdf, pypdfium2.PdfDocument(source) as seen:
            return _read(pdf, seen, sheets, progress)
    except pikepdf.PasswordError:
        raise SheetError("This PDF is locked with a password. Save it without one, and try again.") from None
    except (pikepdf.PdfError, pypdfium2.PdfiumError):
        raise SheetError("This file is damaged, or no PDF. Save it again where it comes from.") from None


def _read(
    pdf: pikepdf.Pdf, seen: pypdfium2.PdfDocument, sheets: Sequence[FrozenSheet], progress: Progress
) -> ReadFile:
    candidates = [Candidate(sheet) for sheet in sheets]
    found, strange, left = [], [], Counter[str]()
    room = MAX_ANNOTATIONS
    count = min(len(pdf.pages), MAX_PAGES)
    for k in range(count):
        progress(f"Reading page {k + 1} of {count}", k / count)
        annotations = _annotations_of(pdf.pages[k])
        if not annotations:
            continue
        match = recognised(seen[k], candidates)
        if match is None:
            strange.append(k + 1)
            continue
        sheet, lies = match
        taken, room = annotations[:room], max(0, room - len(annotations))
        left["more"] += len(annotations) - len(taken)
        found.append(ReadSheet(sheet, _comments(taken, lies, left)))
    if strange and not found:
        title = _plain(pdf.docinfo, "/Title", 80)
        what = f"This PDF calls itself “{title}”, and no page of it" if title else "No page of this PDF"
        raise SheetError(
            f"{what} is a sheet that was issued or reviewed here. Choose the PDF that was sent; a scan has "
            "no lettering by which it is known."
        )
    return ReadFile(tuple(found), tuple(_notes(strange, left)))


def _notes(strange: Sequence[int], left: Counter[str]) -> Iterator[str]:
    if strange:
        which = (
            f"Page {strange[0]} is" if len(strange) == 1 else f"Pages {', '.join(map(str, strange[:8]))} are"
        )
        yield f"{which} of another set. What is said there was left out."
    if left.pop("more", 0):
        yield f"More than {MAX_ANNOTATIONS} annotations: the rest was left out."
    for kind, count in left.items():
        yield f"{count} of the kind {kind} could not be read and {'was' if count == 1 else 'were'} left out."


def _annotations_of(page: pikepdf.Page) -> list[Any]:
    given = page.obj.get("/Annots")
    if not isinstance(given, pikepdf.Array):
        return []
    return [
        each
        for each in given
        if isinstance(each, pikepdf.Dictionary) and str(each.get("/Subtype", "")) not in _NOTHING
    ]


def _comments(annotations: Sequence[Any], lies: OnSheet, left: Counter[str]) -> tuple[WrittenComment, ...]:
    """Comments, with what is grouped with them and what answers them."""
    made: dict[Any, WrittenComment] = {}
    later = []
    for k, each in enumerate(annotations):
        if "/IRT" in each:
            later.append(each)
            continue
        comment = _comment(each, lies, left)
        if comment is not None:
            made[_identity(each, k)] = comment
    parents = {_identity(each, -1): each for each in annotations}
    for each in later:
        root = _root(each, parents)
        if root not in made or "/StateModel" in each:
            continue
        comment = made[root]
        if str(each.get("/RT", "/R")) == "/Group":
            marks = tuple(_marks(each, lies, left))[: MAX_MARKS - len(comment.marks)]
            made[root] = replace(comment, marks=comment.marks + marks)
        elif _text(each):
            answer = WrittenAnswer(_key(each, ()), _author(each), _moment(each), _text(each))
            made[root] = replace(comment, answers=(*comment.answers, answer))
    return tuple(made.values())


def _identity(annotation: Any, k: int) -> Any:
    return annotation.objgen if annotation.is_indirect else ("direct", k)


def _root(annotation: Any, parents: dict[Any, Any]) -> Any:
    """What an answer, or an answer to an answer, is about in the end."""
    at, seen = annotation, set()
    while "/IRT" in at:
        parent = at["/IRT"]
        if not isinstance(parent, pikepdf.Dictionary):
            return None
        identity = _identity(parent, -1)
        if identity in seen or identity not in parents:
            return None
        seen.add(identity)
        at = parent
    return _identity(at, -1)


def _comment(annotation: Any, lies: OnSheet, left: Counter[str]) -> WrittenComment | None:
    marks = tuple(_marks(annotation, lies, left))[:MAX_MARKS]
    text = _text(annotation)
    kind = str(annotation.get("/Subtype", "")).lstrip("/")
    if kind == "Stamp":
        stamp = str(annotation.get("/Name", "")).lstrip("/") or "Stamp"
        text = text or f"Stamp: {stamp}"
    elif kind in ("StrikeOut", "Underline", "Squiggly") and not text:
        text = {"StrikeOut": "Struck out.", "Underline": "Underlined.", "Squiggly": "Underlined."}[kind]
    if not marks:
        left[kind or "nothing"] += 1
        return None
    return WrittenComment(_key(annotation, marks), _author(annotation), _moment(annotation), text, marks)


def _marks(annotation: Any, lies: OnSheet, left: Counter[str]) -> Iterator[AnyMark]:
    """What an annotation draws, on the sheet."""
    kind = str(annotation.get("/Subtype", ""))
    reader = _READERS.get(kind)
    if reader is None:
        return
    try:
        for mark in reader(annotation, lies.place):
            yield from parse_marks([dump(mark)])
    except (SheetError, TypeError, ValueError, KeyError, IndexError, AttributeError):
        return  # it is counted with those that could not be read


def _numbers(value: Any) -> list[float]:
    return [float(each) for each in value]


def _pairs(value: Any) -> list[Point]:
    flat = _numbers(value)
    return list(zip(flat[::2], flat[1::2], strict=False))


def _few(points: Sequence[Point]) -> tuple[Point, ...]:
    """No more points than a mark has."""
    step = math.ceil(len(points) / MAX_POINTS) or 1
    return (*points[:-1:step], points[-1]) if step > 1 else tuple(points)


def _box(annotation: Any) -> tuple[float, float, float, float]:
    x, y, u, v = _numbers(annotation["/Rect"])
    left, foot, right, top = min(x, u), min(y, v), max(x, u), max(y, v)
    if "/RD" in annotation:  # what the rectangle is wider than what is drawn
        a, b, c, d = _numbers(annotation["/RD"])
        left, foot, right, top = left + a, foot + b, right - c, top - d
    return left, foot, right, top


def _is_cloud(annotation: Any) -> bool:
    effect = annotation.get("/BE")
    return isinstance(effect, pikepdf.Dictionary) and str(effect.get("/S", "")) == "/C"


def _note(annotation: Any, place: Place) -> Iterator[AnyMark]:
    # The upper left corner of its icon stays where it is (12.5.3, NoZoom).
    left, _, _, top = _box(annotation)
    yield PointMark(place(left, top))


def _middle(annotation: Any, place: Place) -> Iterator[AnyMark]:
    left, foot, right, top = _box(annotation)
    yield PointMark(place((left + right) / 2, (foot + top) / 2))


def _words(annotation: Any, place: Place) -> Iterator[AnyMark]:
    left, _, _, top = _box(annotation)
    if "/CL" in annotation:  # the line from the words to what they are about
        points = [place(x, y) for x, y in _pairs(annotation["/CL"])]
        yield ArrowMark(points[-1], points[0])
    yield TextMark(place(left, top))


def _line(annotation: Any, place: Place) -> Iterator[AnyMark]:
    first, last = (place(x, y) for x, y in _pairs(annotation["/L"])[:2])
    ends = [str(end) for end in annotation.get("/LE", [])]
    arrows = ["Arrow" in end for end in ends] + [False, False]
    if "/Measure" in annotation or str(annotation.get("/IT", "")) == "/LineDimension":
        yield LengthMark(first, last)
    elif arrows[1]:
        yield ArrowMark(first, last)
    elif arrows[0]:
        yield ArrowMark(last, first)
    else:
        yield LineMark((first, last))


def _rectangle(annotation: Any, place: Place) -> Iterator[AnyMark]:
    left, foot, right, top = _box(annotation)
    corners = tuple(place(x, y) for x, y in ((left, foot), (right, foot), (right, top), (left, top)))
    yield CloudMark(corners) if _is_cloud(annotation) else AreaMark(corners)


def _round(annotation: Any, place: Place) -> Iterator[AnyMark]:
    left, foot, right, top = _box(annotation)
    x, y, wide, high = (left + right) / 2, (foot + top) / 2, (right - left) / 2, (top - foot) / 2
    ways = (2 * math.pi * k / _SIDES for k in range(_SIDES))
    corners = tuple(place(x + wide * math.cos(way), y + high * math.sin(way)) for way in ways)
    yield CloudMark(corners) if _is_cloud(annotation) else AreaMark(corners)


def _polygon(annotation: Any, place: Place) -> Iterator[AnyMark]:
    corners = _few([place(x, y) for x, y in _pairs(annotation["/Vertices"])])
    filled = "/IC" in annotation and len(annotation["/IC"]) > 0
    yield CloudMark(corners) if _is_cloud(annotation) else AreaMark(corners, filled)


def _polyline(annotation: Any, place: Place) -> Iterator[AnyMark]:
    yield LineMark(_few([place(x, y) for x, y in _pairs(annotation["/Vertices"])]))


def _ink(annotation: Any, place: Place) -> Iterator[AnyMark]:
    for stroke in annotation["/InkList"]:
        points = [place(x, y) for x, y in _pairs(stroke)]
        if points:
            yield LineMark(_few(points if len(points) > 1 else points * 2))


def _quads(annotation: Any) -> Iterator[list[Point]]:
    """The four corners of each piece of marked words, in turn about it: files have them in several orders."""
    flat = _pairs(annotation["/QuadPoints"])
    for k in range(0, len(flat) - 3, 4):
        four = flat[k : k + 4]
        x, y = sum(p[0] for p in four) / 4, sum(p[1] for p in four) / 4
        yield sorted(four, key=lambda p, x=x, y=y: math.atan2(p[1] - y, p[0] - x))  # type: ignore[misc]


def _highlight(annotation: Any, place: Place) -> Iterator[AnyMark]:
    for four in _quads(annotation):
        yield AreaMark(tuple(place(x, y) for x, y in four), filled=True)


def _lined(up: float) -> Callable[[Any, Place], Iterator[AnyMark]]:
    """A line through marked words, so far up of their height."""

    def read(annotation: Any, place: Place) -> Iterator[AnyMark]:
        for four in _quads(annotation):
            (a, b), (c, d) = sorted(four, key=lambda p: p[1])[:2], sorted(four, key=lambda p: p[1])[2:]
            feet, heads = sorted((a, b)), sorted((c, d))
            ends = [
                (foot[0] + (head[0] - foot[0]) * up, foot[1] + (head[1] - foot[1]) * up)
                for foot, head in zip(feet, heads, strict=True)
            ]
            yield LineMark(tuple(place(x, y) for x, y in ends))

    return read


_READERS: dict[str, Callable[[Any, Place], Iterator[AnyMark]]] = {
    "/Text": _note, "/FreeText": _words, "/Line": _line, "/Square": _rectangle, "/Circle": _round,
    "/Polygon": _polygon, "/PolyLine": _polyline, "/Ink": _ink, "/Highlight": _highlight,
    "/Underline": _lined(0.0), "/Squiggly": _lined(0.0), "/StrikeOut": _lined(0.5), "/Stamp": _rectangle,
    "/Caret": _middle, "/FileAttachment": _note, "/Sound": _note, "/Redact": _rectangle,
}  # fmt: skip


def _plain(annotation: Any, key: str, limit: int) -> str:
    """Words that a dictionary of the file has under a key; blank for none."""
    value = annotation.get(key)
    if not isinstance(value, pikepdf.String):
        return ""
    # Half letters and signs that no text has are left out.
    text = str(value).replace("\r\n", "\n").replace("\r", "\n").encode("utf-8", "ignore").decode()
    return "".join(sign for sign in text if sign == "\n" or sign.isprintable()).strip()[:limit]


def _text(annotation: Any) -> str:
    return _plain(annotation, "/Contents", MAX_TEXT)


def _author(annotation: Any) -> str:
    return _plain(annotation, "/T", MAX_NAME) or NO_NAME


def _moment(annotation: Any) -> str:
    return moment_from(_plain(annotation, "/CreationDate", 40) or _plain(annotation, "/M", 40))


def moment_from(words: str) -> str:
    """A moment of a PDF (7.9.4) in ISO 8601; blank for what is none.

    >>> moment_from("D:20310504102030+02'00'"), moment_from("yesterday")
    ('2031-05-04T10:20:30+02:00', '')
    """
    digits = words.removeprefix("D:")
    try:
        at = datetime.strptime(digits[:14].ljust(14, "0"), "%Y%m%d%H%M%S")
        zone = UTC
        if digits[14:15] in ("+", "-"):
            hours, minutes = int(digits[15:17]), int(digits[18:20] or 0)
            away = timedelta(hours=hours, minutes=minutes)
            zone = timezone(away if digits[14] == "+" else -away)
        return at.replace(tzinfo=zone).isoformat()
    except ValueError:
        return ""


def _key(annotation: Any, marks: Sequence[AnyMark]) -> str:
    """By what it is known when it comes again: its own name (NM), else what it says and where."""
    name = _plain(annotation, "/NM", 200)
    places = [(round(x), round(y)) for mark in marks for x, y in mark.points[:1]]
    own = name or f"{annotation.get('/Subtype')} {_author(annotation)} {_text(annotation)} {places}"
    return name if name and len(name) <= 64 else hashlib.sha256(own.encode()).hexdigest()
