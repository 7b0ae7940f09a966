"""SVG files that people bring, before anything is made of them: nothing that acts, refers to what is outside,
or unfolds without bounds."""

from __future__ import annotations

import re
from collections.abc import Iterator
from xml.etree.ElementTree import Element, ParseError, tostring

from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring

from drafting.errors import SheetError

MAX_BYTES = 2_000_000
#: Of a picture on a title block, with all that `use` repeats; more is a drawing, or means harm.
MAX_WEIGHT = 60_000
#: The same of a drawing from others.
DRAWING_BYTES, DRAWING_WEIGHT = 60_000_000, 3_000_000
#: What is left out of drawings.
_LEFT_OUT = ("image", "lineargradient", "radialgradient", "pattern", "mask", "filter")
#: Letters of a path for one point of it.
_LETTERS = 20
MAX_DEPTH = 100
_OUTSIDE_STYLE = re.compile(r"@import|url\(\s*[\"']?(?!#)", re.I)

#: What no line is made from, by the remedy that whoever drew it has.
_REFUSED = {
    **dict.fromkeys(
        ("script", "foreignobject", "iframe", "animate", "animatemotion", "animatetransform", "set"),
        "a script or something that moves in it, which cannot be printed. Export it as a plain SVG",
    ),
    "text": "text in a font that may be missing here. Convert it to outlines first",
    "image": "a picture of pixels in it. Take that as a PNG or JPEG file",
    **dict.fromkeys(
        ("lineargradient", "radialgradient", "pattern", "mask", "filter"),
        "shades, patterns or masks in it, which lines and areas cannot show. Give it plain colours",
    ),
}
_ACTS = _REFUSED["script"]
_LINKS = "links to things outside it. Export it with everything in it"


def checked_svg(data: bytes, name: str, *, drawing: bool = False) -> bytes:
    """The file again, as UTF-8 and without comments, entities and document type.

    Args:
        drawing: whether it is a drawing, which may be large, and whose words are lettered anew; pictures and
            shades in it are left out.

    Raises:
        SheetError: it is too large, is no SVG, or has what a drawing may not have.
    """
    most, heaviest = (DRAWING_BYTES, DRAWING_WEIGHT) if drawing else (MAX_BYTES, MAX_WEIGHT)
    if len(data) > most:
        raise SheetError(
            f"“{name}” has {len(data) / 1e6:.1f} MB, and an SVG has at most {most / 1e6:.0f} MB."
        )
    try:
        root = fromstring(data)
    except DefusedXmlException:
        raise SheetError(f"“{name}” has {_ACTS}.") from None
    except (ParseError, ValueError, LookupError, RecursionError):
        raise SheetError(f"“{name}” could not be read as an SVG. Export it again.") from None
    for element, depth in _walk(root):
        if depth > MAX_DEPTH:
            raise SheetError(f"“{name}” has groups nested more than {MAX_DEPTH} deep. Ungroup it.")
        if drawing:
            for child in [child for child in element if _local(child.tag) in _LEFT_OUT]:
                element.remove(child)
        wrong = _wrong(element)
        if wrong and not (drawing and _local(element.tag) == "text"):
            raise SheetError(f"“{name}” has {wrong}.")
    if _Weights(root, heaviest).of(root) > heaviest:
        where = "to be worked with" if drawing else "for a picture on a template"
        raise SheetError(f"“{name}” is too detailed {where}. Make it simpler.")
    return bytes(tostring(root, encoding="utf-8"))


def _walk(root: Element) -> Iterator[tuple[Element, int]]:
    waiting = [(root, 1)]
    while waiting:
        element, depth = waiting.pop()
        yield element, depth
        waiting += [(child, depth + 1) for child in element]


def _local(name: object) -> str:
    return str(name).rpartition("}")[2].lower()


def _wrong(element: Element) -> str:
    """What is wrong with an element; blank for nothing."""
    kind = _local(element.tag)
    if kind in _REFUSED:
        return _REFUSED[kind]
    for key, value in element.attrib.items():
        attribute = _local(key)
        if attribute.startswith("on") or "javascript:" in value.lower():
            return _ACTS
        if attribute == "href" and not value.strip().startswith("#"):
            return _LINKS
        if _OUTSIDE_STYLE.search(value):
            return _LINKS
    return _LINKS if kind == "style" and _OUTSIDE_STYLE.search(element.text or "") else ""


class _Weights:
    """About how many points come of elements, each counted as often as `use` repeats it."""

    def __init__(self, root: Element, heaviest: int) -> None:
        self._most = heaviest + 1
        self._by_id = {e.get("id"): e for e, _ in _walk(root) if e.get("id")}
        self._known: dict[Element, int] = {}

    def of(self, element: Element, above: int = 0) -> int:
        """One that repeats itself, or repetitions of repetitions without end, count as too many."""
        if element in self._known:
            return self._known[element]
        if above > 4 * MAX_DEPTH:
            return self._most
        self._known[element] = self._most  # what it is while it is being counted: found again, it is endless
        own = 1 + sum(len(element.get(key, "")) for key in ("d", "points")) // _LETTERS
        total = own + sum(self.of(child, above + 1) for child in element)
        if _local(element.tag) == "use":
            to = next((v for k, v in element.attrib.items() if _local(k) == "href"), "").strip()
            target = self._by_id.get(to[1:])
            total += self.of(target, above + 1) if target is not None else 0
        self._known[element] = min(total, self._most)
        return self._known[element]
