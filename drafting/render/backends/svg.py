"""SVG, in millimetres, with its lettering embedded."""

from __future__ import annotations

import base64
from collections.abc import Iterable, Iterator, Sequence
from contextlib import contextmanager
from itertools import pairwise
from pathlib import Path as FilePath
from xml.sax.saxutils import escape, quoteattr

from drafting.geometry.polylines import Polylines
from drafting.render.backend import Backend, Sources
from drafting.render.items import Image, Text
from drafting.render.page import FileInfo, Page
from drafting.render.pixels import grey
from drafting.styles.lettering import BOLD, CAP_HEIGHT, REGULAR
from drafting.styles.pens import Pen


def write(pages: Iterable[Page], sources: Sources, info: FileInfo) -> bytes:
    """An SVG of the one page, whose user unit is one millimetre of paper."""
    (page,) = pages
    w, h = _figure(page.width), _figure(page.height)
    fonts = f"{_font_face('normal', REGULAR)}{_font_face('bold', BOLD)}"
    backend = SvgBackend(sources, page.height)
    page.draw(backend)
    parts = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{w}mm" height="{h}mm" viewBox="0 0 {w} {h}">',
        f"<title>{escape(page.name)}</title>",
        f"<style>{fonts}text{{font-family:lettering;white-space:pre}}</style>",
        f'<rect width="{w}" height="{h}" fill="#ffffff"/>',
        '<g fill="none" stroke-linecap="round" stroke-linejoin="round">',
        *backend.parts,
        "</g>",
        "</svg>",
        "",
    ]
    return "\n".join(parts).encode()


class SvgBackend(Backend):
    """Gathers elements. `height` turns a place, measured upward, into one measured downward."""

    def __init__(self, sources: Sources, height: float) -> None:
        super().__init__(sources)
        self.parts: list[str] = []
        self._height, self._layer, self._clips = height, "", 0

    @contextmanager
    def on_sheet(self, page: Page) -> Iterator[None]:
        outer = self._height
        if page.window:
            self.parts.append(
                f'<clipPath id="window"><path d="{self._ring(page.window.corners)}"/></clipPath>'
            )
        self.parts.append('<g clip-path="url(#window)">' if page.window else "<g>")
        self._height = page.display.height
        top = page.height - page.at[1] - page.scale * page.display.height
        move = f"translate({_figure(page.at[0])} {_figure(top)})"
        self.parts.append(f'<g transform="{move} scale({page.scale:.9g})">')
        yield
        self.parts.append("</g></g>")
        self._height = outer

    @contextmanager
    def clip(self, outline: Sequence[tuple[float, float]]) -> Iterator[None]:
        name = f"clip{self._clips}"
        self._clips += 1
        self.parts.append(f'<clipPath id="{name}"><path d="{self._ring(outline)}"/></clipPath>')
        self.parts.append(f'<g clip-path="url(#{name})">')
        self.layer("")
        yield
        self.parts.append("</g>")

    def layer(self, name: str) -> None:
        self._layer = f" data-layer={quoteattr(name)}" if name else ""

    def stroke(self, lines: Polylines, pen: Pen, closed: bool = False) -> None:
        self.parts.append(f'<path d="{self._path(lines, closed)}"{_pen(pen)}{self._layer}/>')

    def fill(self, rings: Polylines, colour: str, opacity: float = 1.0) -> None:
        clear = f' fill-opacity="{opacity:g}"' if opacity < 1 else ""
        path = self._path(rings, True)
        self.parts.append(f'<path d="{path}" fill="{colour}" fill-rule="evenodd"{clear}{self._layer}/>')

    def text(self, item: Text) -> None:
        weight = ' font-weight="bold"' if item.bold else ""
        x, y = _figure(item.at[0]), _figure(self._height - item.at[1])
        turned = f' transform="rotate({_figure(-item.turn)} {x} {y})"' if item.turn else ""
        self.parts.append(
            f'<text x="{x}" y="{y}"{turned} fill="{item.colour}" '
            f'font-size="{_figure(item.size / CAP_HEIGHT)}" text-anchor="{item.anchor}"{weight}{self._layer}>'
            f"{escape(item.text)}</text>"
        )

    def image(self, item: Image) -> None:
        pixels, box = self.sources.pictures(item.picture), item.box
        pixels = grey(pixels) if item.grey else pixels
        form = "png" if pixels.startswith(b"\x89PNG") else "jpeg"
        self.parts.append(
            f'<image x="{_figure(box.x)}" y="{_figure(self._height - box.top)}" width="{_figure(box.width)}" '
            f'height="{_figure(box.height)}" '
            f'href="data:image/{form};base64,{base64.b64encode(pixels).decode()}"/>'
        )

    def _ring(self, corners: Sequence[tuple[float, float]]) -> str:
        return self._path(Polylines.of([corners]), True)

    def _path(self, lines: Polylines, closed: bool) -> str:
        # Figures of Python are written in half the time of those of arrays.
        points = [f"{_figure(x)} {_figure(self._height - y)}" for x, y in lines.points.tolist()]
        end = "Z" if closed else ""
        return "".join("M" + "L".join(points[a:b]) + end for a, b in pairwise(lines.starts.tolist()))


def _pen(pen: Pen) -> str:
    dashes = ",".join(_figure(length) for length in pen.dashes)
    # The end of a dash is square, or its round ends would eat up the gap.
    pattern = f' stroke-dasharray="{dashes}" stroke-linecap="butt"' if dashes else ""
    return f' stroke="{pen.ink}" stroke-width="{_figure(pen.width)}"{pattern}'


def _figure(value: float) -> str:
    return f"{value:.4f}".rstrip("0").rstrip(".")


def _font_face(weight: str, path: FilePath) -> str:
    data = base64.b64encode(path.read_bytes()).decode()
    return f"@font-face{{font-family:lettering;font-weight:{weight};src:url(data:font/ttf;base64,{data})}}"
