"""Reading back what a PDF really holds: its lines in millimetres, their widths, its text."""

from __future__ import annotations

import io
from dataclasses import dataclass

import numpy as np
import pikepdf
import pypdfium2

MILLIMETRE = 25.4 / 72


@dataclass(frozen=True)
class Stroke:
    """One stroked polyline of a page: points in mm from the lower left, and its pen's width in mm."""

    points: np.ndarray
    width: float

    @property
    def length(self) -> float:
        return float(np.hypot(*np.diff(self.points, axis=0).T).sum())


def strokes(data: bytes, page: int = 0) -> list[Stroke]:
    """All stroked lines of a page, clipped or not."""
    found: list[Stroke] = []
    with pikepdf.open(io.BytesIO(data)) as pdf:
        matrix, width, kept, path = np.eye(3), 1.0, [], []
        for operands, operator in pikepdf.parse_content_stream(pdf.pages[page]):
            name = str(operator)
            values = [float(x) for x in operands] if name in ("cm", "w", "m", "l") else []
            if name == "q":
                kept.append((matrix, width))
            elif name == "Q":
                matrix, width = kept.pop()
            elif name == "cm":
                a, b, c, d, e, f = values
                matrix = np.array([[a, b, 0], [c, d, 0], [e, f, 1]]) @ matrix
            elif name == "w":
                width = values[0]
            elif name == "m":
                path.append([values])
            elif name == "l":
                path[-1].append(values)
            elif name == "h":
                path[-1].append(path[-1][0])
            elif name in ("S", "s", "n", "f", "f*", "F"):
                if name in ("S", "s"):
                    scale = abs(np.linalg.det(matrix[:2, :2])) ** 0.5
                    for ring in path:
                        points = np.column_stack([np.array(ring), np.ones(len(ring))]) @ matrix
                        found.append(Stroke(points[:, :2] * MILLIMETRE, width * scale * MILLIMETRE))
                path = []
    return found


def page_sizes(data: bytes) -> list[tuple[float, float]]:
    """Width and height of each page, mm."""
    with pikepdf.open(io.BytesIO(data)) as pdf:
        boxes = [[float(x) for x in page.mediabox] for page in pdf.pages]
    return [((x1 - x0) * MILLIMETRE, (y1 - y0) * MILLIMETRE) for x0, y0, x1, y1 in boxes]


def text(data: bytes, page: int = 0) -> str:
    """The text of a page, as a reader finds it."""
    document = pypdfium2.PdfDocument(data)
    return document[page].get_textpage().get_text_range()
