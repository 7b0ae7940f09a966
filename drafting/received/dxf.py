"""Lines, curves, lettering and the outlines of hatches in a DXF (DXF reference, R12 to R2018)."""

from __future__ import annotations

import io
import math
from collections.abc import Iterator, Sequence
from typing import Any

from ezdxf import recover, units
from ezdxf.disassemble import make_primitive, recursive_decompose
from ezdxf.document import Drawing as Document
from ezdxf.entities.insert import Insert
from ezdxf.entities.lwpolyline import LWPolyline
from ezdxf.entities.mtext import MText
from ezdxf.entities.text import Text
from ezdxf.enums import InsertUnits
from ezdxf.filemanagement import dxf_stream_info, read
from ezdxf.lldxf.const import DXFError
from ezdxf.path import Path, from_hatch_boundary_path

from drafting.errors import ReceivedFileError
from drafting.geometry.boxes import Point
from drafting.received.lettering import outlined
from drafting.received.model import FLATNESS, MAX_LINES, ReceivedDrawing, too_many
from drafting.styles.lettering import LEADING

#: What a drawing may not hold a curve finer than, where its size is not known yet; units.
_FLAT = 0.01
#: So much of a file tells its encoding, bytes.
_HEAD = 200_000
#: What the library raises at a file that is broken.
_UNREADABLE = (DXFError, OSError, ValueError, LookupError, TypeError, AttributeError)
#: Blocks within blocks are followed so deep.
_DEEPEST = 20


class DxfReader:
    """A DXF file that was opened.

    Raises:
        ReceivedFileError: it is none, or nothing of it can be read.
    """

    def __init__(self, data: bytes, name: str) -> None:
        self._name = name
        self._doc = _opened(data, name)
        self.mm = _unit(self._doc)
        self.notes: list[str] = []
        self._flat = _FLAT
        weights, self._loops = _weights(self._doc)
        if weights.get("*Model_Space", 0) > MAX_LINES:
            raise too_many(name)
        if self._loops:
            names = ", ".join(f"“{each}”" for each in sorted(self._loops)[:3])
            self.notes.append(f"Blocks that hold themselves are left out: {names}.")
        low, high = self._extents()
        # Of something that is one point by this rough measure, nothing is known.
        self._flat = math.dist(low, high) * FLATNESS or _FLAT

    def _extents(self) -> tuple[Point, Point]:
        """A rough size: of the ends of lines, the corners of polylines and the middles of the rest."""
        low, high = [math.inf, math.inf], [-math.inf, -math.inf]
        for entity in self._doc.modelspace():
            keys = ("start", "end", "center", "insert")
            points = [entity.dxf.get(key) for key in keys if entity.dxf.is_supported(key)]
            if isinstance(entity, LWPolyline):
                points = list(entity.vertices())
            for at in points:
                if at is not None:
                    for k in (0, 1):
                        low[k], high[k] = min(low[k], at[k]), max(high[k], at[k])
        if low[0] > high[0]:
            return (0.0, 0.0), (1000.0, 1000.0)
        return (low[0], low[1]), (high[0], high[1])

    def read(self) -> ReceivedDrawing:
        """All lines of the model space, with their layers."""
        found = ReceivedDrawing(self.mm, notes=self.notes)
        for layer in self._doc.layers:
            if layer.is_off() or layer.is_frozen():
                found.hidden.add(layer.dxf.name)
        failed = 0
        for entity in self._doc.modelspace():
            element = str(entity.dxf.handle)
            own = str(entity.dxf.get("layer", "0"))
            try:
                for part, name in self._parts(entity, own):
                    words = isinstance(part, Text | MText)
                    for line in self._lines_of(part):
                        found.add(line, name, element, self._name, words=words)
            except ReceivedFileError:
                raise
            except (DXFError, ValueError, TypeError, ZeroDivisionError, AttributeError, RecursionError):
                # What is broken in the file is left out, and the rest is there.
                failed += 1
        if failed:
            found.notes.append(f"{failed} of its things are broken in the file and were left out.")
        return found

    def lines(self) -> Iterator[Sequence[Point]]:
        """All lines of the model space."""
        yield from self.read().lines

    def blocks(self) -> Iterator[tuple[str, Point, list[Sequence[Point]]]]:
        """The blocks that somebody made: name, insertion point, and lines."""
        for block in self._doc.blocks:
            name = block.name
            if name.startswith(("*", "_")) or name in self._loops:
                continue
            found: list[Sequence[Point]] = []
            for entity in block:
                try:
                    for part, _ in self._parts(entity, "0"):
                        found.extend(self._lines_of(part))
                except (DXFError, ValueError, TypeError, AttributeError, RecursionError):
                    continue
                if len(found) > MAX_LINES:
                    break
            if found:
                base = block.base_point
                yield name, (float(base[0]), float(base[1])), found

    def _parts(self, entity: Any, own: str) -> Iterator[tuple[Any, str]]:
        """What an entity is made of, with the layer of each: what stands on layer 0 of a block has that of
        the block's place."""
        if entity.dxftype() == "INSERT" and entity.dxf.get("name") in self._loops:
            return
        for part in recursive_decompose([entity]):
            layer = str(part.dxf.get("layer", "0"))
            yield part, own if layer == "0" else layer

    def _lines_of(self, part: Any) -> Iterator[Sequence[Point]]:
        kind = part.dxftype()
        if kind == "LINE":
            a, b = part.dxf.start, part.dxf.end
            yield (a.x, a.y), (b.x, b.y)
        elif isinstance(part, Text):
            yield from self._lettering(part)
        elif isinstance(part, MText):
            yield from self._paragraphs(part)
        elif kind in ("POINT", "VIEWPORT", "IMAGE", "WIPEOUT", "XLINE", "RAY"):
            return
        elif kind == "HATCH" or kind == "MPOLYGON":
            for boundary in part.paths.rendering_paths(part.dxf.hatch_style):
                yield from self._flattened(from_hatch_boundary_path(boundary))
        elif kind in ("SOLID", "TRACE", "3DFACE"):
            corners = [(p.x, p.y) for p in part.wcs_vertices()]
            yield [*corners, corners[0]]
        else:
            primitive = make_primitive(part, self._flat)
            if primitive.path is not None:
                yield from self._flattened(primitive.path)

    def _flattened(self, path: Path | None) -> Iterator[Sequence[Point]]:
        if path is None:
            return
        for sub in path.sub_paths():
            yield [(p.x, p.y) for p in sub.flattening(self._flat, 4)]

    def _lettering(self, text: Text) -> Iterator[Sequence[Point]]:
        words = text.plain_text().strip()
        height = float(text.dxf.get("height", 2.5))
        if not words or height <= 0:
            return
        align, first, second = text.get_placement()
        at = second if second is not None and align.name not in ("LEFT", "ALIGNED", "FIT") else first
        name = align.name
        share = 1.0 if "RIGHT" in name else 0.5 if "CENTER" in name or name == "MIDDLE" else 0.0
        lift = {"TOP": 1.0, "MIDD": 0.5}.get(name[:4], 0.0)
        angle = float(text.dxf.get("rotation", 0.0))
        yield from outlined(words, height, (at.x, at.y), angle, share, lift)

    def _paragraphs(self, text: MText) -> Iterator[Sequence[Point]]:
        height = float(text.dxf.get("char_height", 2.5))
        rows = [row for row in text.plain_text(split=True) if isinstance(row, str)]
        if height <= 0 or not rows:
            return
        at = text.dxf.insert
        line, column = divmod(int(text.dxf.get("attachment_point", 1)) - 1, 3)
        step = height * LEADING
        whole = height + step * (len(rows) - 1)
        top = (0.0, whole / 2, whole)[line]
        angle = float(text.get_rotation())
        turn = math.radians(angle)
        for k, row in enumerate(rows):
            down = top - height - k * step
            place = at.x - math.sin(turn) * down, at.y + math.cos(turn) * down
            yield from outlined(row, height, place, angle, column / 2, 0.0)


def _opened(data: bytes, name: str) -> Document:
    """The document in a file: read as it is, which is faster, else mended as far as that can be."""
    try:
        head = dxf_stream_info(io.StringIO(data[:_HEAD].decode("cp1252", "replace")))
        return read(io.StringIO(data.decode(head.encoding, "surrogateescape")))
    except _UNREADABLE:
        pass
    try:
        doc, _ = recover.read(io.BytesIO(data))
    except _UNREADABLE as error:
        raise ReceivedFileError(
            f"“{name}” cannot be read as DXF. Save it again as a DXF of R2000 or newer."
        ) from error
    return doc


def _unit(doc: Document) -> float | None:
    """How many mm a unit is ($INSUNITS); None where it is not said."""
    code = int(doc.header.get("$INSUNITS", 0))
    try:
        return float(units.conversion_factor(InsertUnits(code), InsertUnits.Millimeters)) if code else None
    except (ValueError, KeyError, IndexError, TypeError, DXFError):
        return None


def _weights(doc: Document) -> tuple[dict[str, int], set[str]]:
    """How many things come of each block, with all that is put into it; and the names of those that are put
    into themselves, at once or through others, or too deep."""
    weights: dict[str, int] = {}
    bad: set[str] = set()
    blocks = {block.name: block for block in doc.blocks}

    def weigh(name: str, way: tuple[str, ...]) -> int:
        if name in way or len(way) > _DEEPEST:
            bad.update(way)
            return 0
        if name not in weights and name in blocks:
            total = 0
            for entity in blocks[name]:
                total += (
                    weigh(entity.dxf.get("name", ""), (*way, name)) * max(1, entity.mcount)
                    if isinstance(entity, Insert)
                    else 1
                )
            weights[name] = total
        return weights.get(name, 0)

    for name in blocks:
        weigh(name, ())
    return weights, bad
