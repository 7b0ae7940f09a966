"""A page to SVG, in millimetres, with its lettering embedded."""

from __future__ import annotations

import base64
from collections.abc import Callable, Iterable, Iterator
from pathlib import Path as FilePath
from xml.sax.saxutils import escape, quoteattr

import numpy as np

from drafting.linework.model import Linework
from drafting.plot.display import Clipped, Fill, Image, Path, Primitive, Strokes, Text, expand, no_picture
from drafting.plot.lettering import BOLD, CAP_HEIGHT, REGULAR
from drafting.plot.page import Page
from drafting.plot.pens import Pen
from drafting.plot.pixels import grey


def write_svg(page: Page, linework: Callable[[str], Linework], pictures: Callable[[str], bytes] = no_picture) -> bytes:
    """An SVG whose user unit is one millimetre of paper."""
    w, h = _figure(page.width), _figure(page.height)
    fonts = f"{_font_face('normal', REGULAR)}{_font_face('bold', BOLD)}"
    parts = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{w}mm" height="{h}mm" viewBox="0 0 {w} {h}">',
        f"<title>{escape(page.name)}</title>",
        f"<style>{fonts}text{{font-family:lettering;white-space:pre}}</style>",
        f'<rect width="{w}" height="{h}" fill="#ffffff"/>',
        '<g fill="none" stroke-linecap="round" stroke-linejoin="round">',
    ]
    if page.window:
        parts.append(f'<clipPath id="window"><path d="{_path((page.window.corners,), page.height, True)}"/></clipPath>')
    parts.append('<g clip-path="url(#window)">' if page.window else "<g>")
    top = page.height - page.at[1] - page.scale * page.display.height
    parts.append(f'<g transform="translate({_figure(page.at[0])} {_figure(top)}) scale({page.scale:.9g})">')
    for number, item in enumerate(expand(page.display, linework)):
        parts += _written(item, page.display.height, f"clip{number}", pictures)
    parts.append("</g></g>")
    for item in page.over:
        parts += _written(item, page.height, "", pictures)
    return "\n".join([*parts, "</g>", "</svg>", ""]).encode()


def _written(item: Primitive | Strokes, height: float, name: str, pictures: Callable[[str], bytes]) -> Iterator[str]:
    layer = "" if isinstance(item, Clipped) or not item.layer else f" data-layer={quoteattr(item.layer)}"
    if isinstance(item, Path):
        yield f'<path d="{_path((item.points,), height, item.closed)}"{_pen(item.pen)}{layer}/>'
    elif isinstance(item, Strokes):
        lines = np.split(item.points, item.starts[1:])
        yield f'<path d="{_path(lines, height, False)}"{_pen(item.pen)}{layer}/>'
    elif isinstance(item, Fill):
        clear = f' fill-opacity="{item.opacity:g}"' if item.opacity < 1 else ""
        yield f'<path d="{_path(item.rings, height, True)}" fill="{item.colour}" fill-rule="evenodd"{clear}{layer}/>'
    elif isinstance(item, Text):
        weight = ' font-weight="bold"' if item.bold else ""
        yield (
            f'<text x="{_figure(item.at[0])}" y="{_figure(height - item.at[1])}" fill="{item.colour}" '
            f'font-size="{_figure(item.size / CAP_HEIGHT)}" text-anchor="{item.anchor}"{weight}{layer}>'
            f"{escape(item.text)}</text>"
        )
    elif isinstance(item, Image):
        pixels, box = pictures(item.picture), item.box
        pixels = grey(pixels) if item.grey else pixels
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


def _pen(pen: Pen) -> str:
    dashes = ",".join(_figure(length) for length in pen.dashes)
    # The end of a dash is square, or its round ends would eat up the gap.
    pattern = f' stroke-dasharray="{dashes}" stroke-linecap="butt"' if dashes else ""
    return f' stroke="{pen.ink}" stroke-width="{_figure(pen.width)}"{pattern}'


def _path(rings: Iterable[Iterable[Iterable[float]]], height: float, closed: bool) -> str:
    end = "Z" if closed else ""
    return "".join("M" + "L".join(f"{_figure(x)} {_figure(height - y)}" for x, y in ring) + end for ring in rings)


def _figure(value: float) -> str:
    return f"{value:.4f}".rstrip("0").rstrip(".")


def _font_face(weight: str, path: FilePath) -> str:
    data = base64.b64encode(path.read_bytes()).decode()
    return f"@font-face{{font-family:lettering;font-weight:{weight};src:url(data:font/ttf;base64,{data})}}"
