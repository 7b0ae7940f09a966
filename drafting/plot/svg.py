"""A display list to SVG, in millimetres, with its lettering embedded."""

from __future__ import annotations

import base64
from collections.abc import Callable, Iterable, Iterator
from pathlib import Path as FilePath
from xml.sax.saxutils import escape, quoteattr

from drafting.linework.model import Linework
from drafting.plot.display import Clipped, DisplayList, Fill, Image, Path, Primitive, Text, expand, no_picture
from drafting.plot.lettering import BOLD, CAP_HEIGHT, REGULAR


def write_svg(
    display: DisplayList,
    linework: Callable[[str], Linework],
    title: str = "",
    pictures: Callable[[str], bytes] = no_picture,
) -> bytes:
    """An SVG whose user unit is one millimetre of paper."""
    w, h = _figure(display.width), _figure(display.height)
    parts = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{w}mm" height="{h}mm" viewBox="0 0 {w} {h}">',
        f"<title>{escape(title)}</title>",
        f"<style>{_font_face('normal', REGULAR)}{_font_face('bold', BOLD)}text{{font-family:lettering}}</style>",
        f'<rect width="{w}" height="{h}" fill="#ffffff"/>',
        '<g fill="none" stroke-linecap="round" stroke-linejoin="round">',
    ]
    for number, item in enumerate(expand(display, linework)):
        parts += _written(item, display.height, f"clip{number}", pictures)
    return "\n".join([*parts, "</g>", "</svg>", ""]).encode()


def _written(item: Primitive, height: float, name: str, pictures: Callable[[str], bytes]) -> Iterator[str]:
    if isinstance(item, Path):
        data = _path((item.points,), height, item.closed)
        layer = f" data-layer={quoteattr(item.layer)}" if item.layer else ""
        dashes = ",".join(_figure(length) for length in item.pen.dashes)
        # The end of a dash is square, or its round ends would eat up the gap.
        pattern = f' stroke-dasharray="{dashes}" stroke-linecap="butt"' if dashes else ""
        yield f'<path d="{data}" stroke="{item.pen.colour}" stroke-width="{_figure(item.pen.width)}"{pattern}{layer}/>'
    elif isinstance(item, Fill):
        yield f'<path d="{_path(item.rings, height, True)}" fill="{item.colour}" fill-rule="evenodd"/>'
    elif isinstance(item, Text):
        weight = ' font-weight="bold"' if item.bold else ""
        yield (
            f'<text x="{_figure(item.at[0])}" y="{_figure(height - item.at[1])}" fill="{item.colour}" '
            f'font-size="{_figure(item.size / CAP_HEIGHT)}" text-anchor="{item.anchor}"{weight}>'
            f"{escape(item.text)}</text>"
        )
    elif isinstance(item, Image):
        pixels, box = pictures(item.picture), item.box
        form = "png" if pixels.startswith(b"\x89PNG") else "jpeg"
        yield (
            f'<image x="{_figure(box.x)}" y="{_figure(height - box.top)}" width="{_figure(box.width)}" '
            f'height="{_figure(box.height)}" href="data:image/{form};base64,{base64.b64encode(pixels).decode()}"/>'
        )
    elif isinstance(item, Clipped):
        yield f'<clipPath id="{name}"><path d="{_path((item.clip,), height, True)}"/></clipPath>'
        yield f'<g clip-path="url(#{name})">'
        for inner in item.items:
            yield from _written(inner, height, name, pictures)
        yield "</g>"


def _path(rings: Iterable[Iterable[Iterable[float]]], height: float, closed: bool) -> str:
    end = "Z" if closed else ""
    return "".join("M" + "L".join(f"{_figure(x)} {_figure(height - y)}" for x, y in ring) + end for ring in rings)


def _figure(value: float) -> str:
    return f"{value:.4f}".rstrip("0").rstrip(".")


def _font_face(weight: str, path: FilePath) -> str:
    data = base64.b64encode(path.read_bytes()).decode()
    return f"@font-face{{font-family:lettering;font-weight:{weight};src:url(data:font/ttf;base64,{data})}}"
