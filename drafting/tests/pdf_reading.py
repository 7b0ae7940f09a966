"""Reading back what a PDF really holds: its lines in millimetres, their widths, patterns, colours and layers,
its text."""

from __future__ import annotations

import io
from dataclasses import dataclass, replace

import numpy as np
import pikepdf
import pypdfium2

MILLIMETRE = 25.4 / 72


@dataclass(frozen=True)
class Stroke:
    """One stroked polyline of a page: points in mm from the lower left, and its pen's width in mm; dash and
    gap by turns, mm; its colour as shares of red, green and blue; the name of its layer."""

    points: np.ndarray
    width: float
    dashes: tuple[float, ...] = ()
    colour: tuple[float, ...] = ()
    layer: str = ""

    @property
    def length(self) -> float:
        return float(np.hypot(*np.diff(self.points, axis=0).T).sum())


@dataclass(frozen=True)
class Area:
    """One filled area of a page: its rings in mm, and its colour as shares of red, green and blue."""

    rings: tuple[np.ndarray, ...]
    colour: tuple[float, ...]


@dataclass(frozen=True)
class _State:
    matrix: np.ndarray
    width: float = 1.0
    dashes: tuple[float, ...] = ()
    stroke: tuple[float, ...] = (0.0, 0.0, 0.0)
    fill: tuple[float, ...] = (0.0, 0.0, 0.0)


def strokes(data: bytes, page: int = 0) -> list[Stroke]:
    """All stroked lines of a page, clipped or not."""
    return [item for item in _painted(data, page) if isinstance(item, Stroke)]


def areas(data: bytes, page: int = 0) -> list[Area]:
    """All filled areas of a page, clipped or not."""
    return [item for item in _painted(data, page) if isinstance(item, Area)]


def _painted(data: bytes, page: int) -> list[Stroke | Area]:
    found: list[Stroke | Area] = []
    with pikepdf.open(io.BytesIO(data)) as pdf:
        layers = {
            key: str(group.Name) for key, group in pdf.pages[page].Resources.get("/Properties", {}).items()
        }
        state, kept, path, open_layers = _State(np.eye(3)), [], [], [""]
        for operands, operator in pikepdf.parse_content_stream(pdf.pages[page]):
            name = str(operator)
            if name == "BDC":
                open_layers.append(layers[str(operands[1])])
            elif name == "EMC":
                open_layers.pop()
            elif name == "q":
                kept.append(state)
            elif name == "Q":
                state = kept.pop()
            elif name == "d":
                state = replace(state, dashes=tuple(float(x) for x in operands[0]))
            elif name in ("cm", "w", "RG", "rg", "m", "l"):
                state = _after(state, name, [float(x) for x in operands], path)
            elif name == "h":
                path[-1].append(path[-1][0])
            elif name in ("S", "s", "n", "f", "f*", "F"):
                rings = [
                    np.column_stack([np.array(ring), np.ones(len(ring))]) @ state.matrix for ring in path
                ]
                rings = [ring[:, :2] * MILLIMETRE for ring in rings]
                if name in ("S", "s"):
                    scale = abs(np.linalg.det(state.matrix[:2, :2])) ** 0.5 * MILLIMETRE
                    dashes = tuple(x * scale for x in state.dashes)
                    closed = [np.vstack([ring, ring[:1]]) for ring in rings] if name == "s" else rings
                    found += [
                        Stroke(r, state.width * scale, dashes, state.stroke, open_layers[-1]) for r in closed
                    ]
                elif name != "n" and rings:
                    found.append(Area(tuple(rings), state.fill))
                path = []
    return found


def _after(state: _State, name: str, values: list[float], path: list[list[list[float]]]) -> _State:
    """The state of a page after an operator with figures."""
    if name == "cm":
        a, b, c, d, e, f = values
        return replace(state, matrix=np.array([[a, b, 0], [c, d, 0], [e, f, 1]]) @ state.matrix)
    if name == "w":
        return replace(state, width=values[0])
    if name == "RG":
        return replace(state, stroke=tuple(values))
    if name == "rg":
        return replace(state, fill=tuple(values))
    if name == "m":
        path.append([values])
    else:
        path[-1].append(values)
    return state


def page_sizes(data: bytes) -> list[tuple[float, float]]:
    """Width and height of each page, mm."""
    with pikepdf.open(io.BytesIO(data)) as pdf:
        boxes = [[float(x) for x in page.mediabox] for page in pdf.pages]
    return [((x1 - x0) * MILLIMETRE, (y1 - y0) * MILLIMETRE) for x0, y0, x1, y1 in boxes]


def text(data: bytes, page: int = 0) -> str:
    """The text of a page, as a reader finds it."""
    document = pypdfium2.PdfDocument(data)
    return document[page].get_textpage().get_text_range()


def layers(data: bytes) -> list[str]:
    """The names of the layers that a reader lists."""
    with pikepdf.open(io.BytesIO(data)) as pdf:
        return [str(group.Name) for group in pdf.Root.OCProperties.D.Order]


def page_labels(data: bytes) -> list[str]:
    """What a reader calls each page."""
    with pikepdf.open(io.BytesIO(data)) as pdf:
        return [str(page.label) for page in pdf.pages]
