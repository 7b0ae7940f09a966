"""Comments as the standard annotations of a PDF (ISO 32000-2, 12.5.6), so that any reader shows them."""

from __future__ import annotations

import io
import math
from collections.abc import Sequence
from datetime import datetime
from pathlib import Path

import pikepdf
from pikepdf import Array, Dictionary, Name, Object, Pdf, String

from drafting.annotation.clouds import ring_of_arcs
from drafting.geometry.boxes import Box, Point, box_about
from drafting.progress import Progress, silent
from drafting.review.comments import WrittenAnswer, WrittenComment
from drafting.review.marks import AnyMark

POINTS_PER_MM = 72 / 25.4
#: By how a comment stands: red, green and blue.
COLOURS = {
    "open": (0.61, 0.25, 0.14),
    "answered": (0.18, 0.36, 0.4),
    "done": (0.29, 0.42, 0.24),
    "declined": (0.33, 0.38, 0.42),
}
#: How readers call these (12.5.6.3).
_REVIEW_STATES = {"done": "Completed", "declined": "Rejected"}
#: Line width, letters and icons, points.
WIDTH, LETTERS, ICON = 1.4, 9.0, 18.0
#: Flags (12.5.3): printed; and hidden, printed, neither zoomed nor turned, as answers are.
_PRINTED, _ANSWER = 4, 30


def write_comments(
    source: Path, comments: Sequence[Sequence[WrittenComment]], progress: Progress = silent
) -> bytes:
    """The PDF at `source` with comments on each of its pages, which are whole sheets at their own size."""
    with pikepdf.open(source) as pdf:
        for page, own in zip(pdf.pages, comments, strict=True):
            annotations: list[Object] = list(page.obj.get(Name.Annots, Array()))
            for comment in own:
                annotations += _annotations(pdf, comment)
            if annotations:
                page.obj[Name.Annots] = pdf.make_indirect(Array(annotations))
        out = io.BytesIO()
        pdf.save(out)
    return out.getvalue()


def _annotations(pdf: Pdf, comment: WrittenComment) -> list[Object]:
    """One annotation of each mark, grouped with the first, and of each answer, in reply to it."""
    colour = COLOURS[comment.state]
    made: list[Object] = []
    for mark in comment.marks:
        annotation = pdf.make_indirect(_drawn(pdf, mark, comment.text, colour))
        if made:
            annotation[Name.IRT], annotation[Name.RT] = made[0], Name.Group
        made.append(annotation)
    if not made:
        made = [pdf.make_indirect(_note((5.0, 5.0), colour))]
    first = made[0]
    first[Name.Contents] = String(comment.text)
    first[Name.Subj] = String(f"Comment {comment.number}: {comment.standing}")
    _sign(first, comment.key, comment.author, comment.made)
    for answer in comment.answers:
        made.append(pdf.make_indirect(_answer(first, answer, colour)))
    if comment.state in _REVIEW_STATES:
        stands = WrittenAnswer(f"{comment.key}-state", comment.author, comment.made, comment.standing)
        reply = pdf.make_indirect(_answer(first, stands, colour))
        reply[Name.StateModel], reply[Name.State] = String("Review"), String(_REVIEW_STATES[comment.state])
        made.append(reply)
    return made


def _sign(annotation: Object, key: str, author: str, made: str) -> None:
    annotation[Name.T], annotation[Name.NM] = String(author), String(key)
    if made:
        when = String(pdf_date(made))
        annotation[Name.M], annotation[Name.CreationDate] = when, when


def pdf_date(moment: str) -> str:
    """A moment (ISO 8601) as a PDF writes it (7.9.4).

    >>> pdf_date("2031-05-04T10:20:30+02:00")
    "D:20310504102030+02'00'"
    """
    at = datetime.fromisoformat(moment)
    zone = at.strftime("%z")
    return at.strftime("D:%Y%m%d%H%M%S") + (f"{zone[:3]}'{zone[3:5]}'" if zone else "Z")


def _answer(first: Object, answer: WrittenAnswer, colour: tuple[float, float, float]) -> Dictionary:
    x, y, *_ = (float(value) for value in first[Name.Rect])
    made = _base("Text", Box(x / POINTS_PER_MM, y / POINTS_PER_MM, 6.0, 6.0), colour, flags=_ANSWER)
    made[Name.Contents] = String(answer.text)
    made[Name.IRT], made[Name.RT] = first, Name.R
    _sign(made, answer.key, answer.author, answer.made)
    return made


def _base(kind: str, box: Box, colour: tuple[float, float, float], flags: int = _PRINTED) -> Dictionary:
    corners = box.x, box.y, box.right, box.top
    return Dictionary(
        Type=Name.Annot,
        Subtype=Name(f"/{kind}"),
        Rect=Array([round(value * POINTS_PER_MM, 3) for value in corners]),
        C=Array(list(colour)),
        F=flags,
        BS=Dictionary(W=WIDTH),
    )


def _note(at: Point, colour: tuple[float, float, float]) -> Dictionary:
    """A note whose icon has its upper left corner at a place, which is the one that readers hold."""
    side = ICON / POINTS_PER_MM
    made = _base("Text", Box(at[0], at[1] - side, side, side), colour)
    made[Name.Name] = Name.Comment
    return made


def _drawn(pdf: Pdf, mark: AnyMark, text: str, colour: tuple[float, float, float]) -> Dictionary:
    """The annotation of one mark."""
    if mark.kind == "point":
        return _note(mark.at, colour)
    if mark.kind == "text":
        return _lettered(pdf, mark.at, text, colour)
    points = [(x * POINTS_PER_MM, y * POINTS_PER_MM) for x, y in mark.points]
    margin = 4.0
    around = box_about(mark.points)
    box = Box(around.x - margin, around.y - margin, around.width + 2 * margin, around.height + 2 * margin)
    if mark.kind == "arrow" or mark.kind == "length":
        made = _base("Line", box, colour)
        if mark.kind == "arrow":
            points = points[::-1]
            made[Name.LE] = Array([Name("/None"), Name.OpenArrow])
        else:
            made[Name.LE], made[Name.IT] = Array([Name.Butt, Name.Butt]), Name.LineDimension
        made[Name.L] = _flat(points)
        paths = [points, _end(points, arrow=mark.kind == "arrow")]
    elif mark.kind == "line":
        made = _base("Ink", box, colour)
        made[Name.InkList] = Array([_flat(points)])
        paths = [points]
    else:
        made = _base("Polygon", box, colour)
        made[Name.Vertices] = _flat(points)
        if mark.kind == "cloud":
            made[Name.BE] = Dictionary(S=Name.C, I=1)
        elif mark.filled:
            made[Name.IC], made[Name.CA] = Array(list(colour)), 0.3
        ring = ring_of_arcs(mark.points) if mark.kind == "cloud" else mark.points
        drawn = [(x * POINTS_PER_MM, y * POINTS_PER_MM) for x, y in ring]
        paths = [[*drawn, drawn[0]]]
    made[Name.AP] = Dictionary(N=_picture(pdf, made, paths, colour))
    return made


def _end(points: Sequence[Point], *, arrow: bool) -> list[Point]:
    (x, y), (u, v) = points[-1], points[0]
    way = math.atan2(v - y, u - x)
    spread = 0.45 if arrow else math.pi / 2
    left, right = ((x + 9 * math.cos(way + turn), y + 9 * math.sin(way + turn)) for turn in (spread, -spread))
    return [left, (x, y), right]


def _flat(points: Sequence[Point]) -> Array:
    return Array([round(value, 3) for point in points for value in point])


def _picture(
    pdf: Pdf, annotation: Dictionary, paths: Sequence[Sequence[Point]], colour: tuple[float, float, float]
) -> Object:
    """How an annotation of lines looks, for readers that do not draw it themselves."""
    parts = [f"{colour[0]} {colour[1]} {colour[2]} RG {WIDTH} w 1 J 1 j"]
    for path in paths:
        parts.append(" ".join(f"{x:.3f} {y:.3f} {'l' if k else 'm'}" for k, (x, y) in enumerate(path)) + " S")
    form = pdf.make_stream("\n".join(parts).encode())
    form[Name.Type], form[Name.Subtype] = Name.XObject, Name.Form
    form[Name.BBox] = annotation[Name.Rect]
    return form


def _lettered(pdf: Pdf, at: Point, text: str, colour: tuple[float, float, float]) -> Dictionary:
    """Words on the sheet."""
    lines = text.split("\n") or [""]
    width = max(20.0, max(map(len, lines)) * LETTERS * 0.56 / POINTS_PER_MM + 2.0)
    height = (len(lines) * LETTERS * 1.25 + 4.0) / POINTS_PER_MM
    made = _base("FreeText", Box(at[0], at[1] - height, width, height), colour)
    red, green, blue = colour
    made[Name.DA] = String(f"/Helv {LETTERS:g} Tf {red} {green} {blue} rg")
    made[Name.BS] = Dictionary(W=0)
    left, top = at[0] * POINTS_PER_MM + 2.0, at[1] * POINTS_PER_MM - 2.0 - LETTERS
    words = [
        f"BT /Helv {LETTERS:g} Tf {red} {green} {blue} rg".encode(),
        f"{left:.3f} {top:.3f} Td {LETTERS * 1.25:g} TL".encode(),
    ]
    for line in lines:
        plain = line.encode("cp1252", "replace")
        for sign in (b"\\", b"(", b")"):
            plain = plain.replace(sign, b"\\" + sign)
        words.append(b"(" + plain + b") Tj T*")
    form = pdf.make_stream(b"\n".join([*words, b"ET"]))
    form[Name.Type], form[Name.Subtype] = Name.XObject, Name.Form
    form[Name.BBox] = made[Name.Rect]
    font = Dictionary(
        Type=Name.Font, Subtype=Name.Type1, BaseFont=Name.Helvetica, Encoding=Name.WinAnsiEncoding
    )
    form[Name.Resources] = Dictionary(Font=Dictionary(Helv=font))
    made[Name.AP] = Dictionary(N=form)
    return made
