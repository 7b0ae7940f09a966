"""A drawing as it lies on its sheet: its linework in paper millimetres, sorted by pen and layer."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from functools import cached_property
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from drafting.geometry.polylines import Floats, Polylines
from drafting.linework.model import ROLES, Linework, Role
from drafting.render.items import Drawing
from drafting.styles.pen_table import CutStyle
from drafting.styles.pens import Pen
from drafting.styles.redrawn import OWN, Piece, Redrawn, areas_by, divided


class LineGroup(NamedTuple):
    """Lines of one role, on one layer and of one pen."""

    role: Role
    layer: str
    pen: Pen
    lines: Polylines


#: What is redrawn with the pens that it has.
OWN_PENS = Redrawn()


class PlacedDrawing:
    """Linework through a viewport. What lies wholly outside the window is left out.

    Attributes:
        place: (2,) where u = v = 0 lies on paper, mm.
        low, high: (2,) the window's lower left and upper right on paper, mm.
    """

    def __init__(self, item: Drawing, linework: Linework) -> None:
        self.item, self.linework = item, linework
        self.place: Floats = np.array(item.place, float)
        corners = np.array(item.clip)
        self.low, self.high = corners.min(axis=0), corners.max(axis=0)

    @property
    def window(self) -> Floats:
        """(n, 2) the corners of the window in u and v, real mm."""
        return np.asarray((np.array(self.item.clip) - self.place) @ np.linalg.inv(self._matrix))

    @cached_property
    def _matrix(self) -> Floats:
        turn = np.radians(self.item.turn)
        cos, sin = np.cos(turn), np.sin(turn)
        return np.asarray(self.item.ratio * np.array([[cos, sin], [-sin, cos]]))

    def cut_areas(self) -> Iterator[tuple[CutStyle, tuple[Floats, ...]]]:
        """Each region that is cut, with how it is filled: rings of (n, 2), its outline first."""
        regions = self.linework.packed_regions
        if not len(regions):
            return
        styles = self._cut_styles()
        by = areas_by(len(regions), self.item.redrawn)
        rings = regions.rings.mapped(self._matrix, self.place)
        low, high = rings.bounds()
        outline = regions.starts[:-1]
        meets = ((high[outline] >= self.low) & (low[outline] <= self.high)).all(axis=1)
        hidden = self._hidden_elements()
        for k in np.flatnonzero(meets).tolist():
            style = styles[regions.material[k]]
            if by[k] != OWN:
                instead = self.item.redrawn[by[k]]
                style = None if instead.hidden else instead.cut or style
            if style is not None and int(regions.element[k]) not in hidden:
                yield style, tuple(rings[ring] for ring in range(regions.starts[k], regions.starts[k + 1]))

    def unfilled_materials(self) -> list[str]:
        """Names of materials that are cut somewhere and are neither filled nor hatched; blank for none."""
        regions = self.linework.packed_regions
        cut = sorted(set(regions.material.tolist()))
        styles = self._cut_styles() if cut else []
        bare = [k for k in cut if (style := styles[k]) is None or not (style.fill or style.hatch)]
        return [self.linework.materials[k] for k in bare]

    def _cut_styles(self) -> list[CutStyle | None]:
        """How what is cut of each material of the drawing is filled; None for not at all."""
        return [
            next((cut for cut in self.item.cuts if cut.matches(material)), None)
            for material in self.linework.materials
        ]

    def line_groups(self) -> Iterator[tuple[str, Pen, Polylines]]:
        """Lines by layer and pen, the widest last, so that a narrow line never breaks a wide one."""
        return ((group.layer, group.pen, group.lines) for group in self.groups())

    def groups(self) -> Iterator[LineGroup]:
        """The same with their roles."""
        item, packed = self.item, self.linework.packed
        if not len(packed):
            return
        lines = Polylines(packed.lines.points[:, :2], packed.lines.starts).mapped(self._matrix, self.place)
        margin = max((pen.width for pen in self._pens()), default=0.0)
        low, high = lines.bounds()
        meets = ((high >= self.low - margin) & (low <= self.high + margin)).all(axis=1)
        groups: list[LineGroup] = []
        by, pieces = divided(lines, item.redrawn) if item.redrawn else (None, [])
        for (role, layer), which in self.linework.groups.items():
            if role in item.pens and layer not in item.hidden and meets[which].any():
                pen, own = item.pens[role].changed(item.layers.get(layer)), which[meets[which]]
                if by is not None:
                    own = own[by[own] == OWN]
                groups.append(LineGroup(role, layer, pen, lines.select(own)))
        if by is not None:
            groups += self._redrawn_groups(lines, by, pieces)
        for group in sorted(groups, key=lambda each: (each.pen.width, -ROLES.index(each.role), each.layer)):
            if len(group.lines):
                yield group

    def _redrawn_groups(
        self, lines: Polylines, by: NDArray[np.int32], pieces: list[Piece]
    ) -> Iterator[LineGroup]:
        """What is drawn otherwise than the roles and layers of its lines say, as groups of one pen."""
        item, packed = self.item, self.linework.packed
        found: dict[tuple[Role, str, int], list[Floats]] = defaultdict(list)

        def of(line: int, points: Floats, what: int) -> None:
            found[ROLES[packed.role[line]], self.linework.layers[packed.layer[line]], what].append(points)

        for line in np.flatnonzero(by >= 0).tolist():
            of(line, lines[line], int(by[line]))
        for line, points, what in pieces:
            of(line, points, what)
        for k, each in enumerate(item.redrawn):
            for ends in each.added:
                places = self.place + np.array(ends) @ self._matrix
                found[each.role or "edge", each.layer, k].append(places)
        for (role, layer, what), own in found.items():
            redrawn = OWN_PENS if what == OWN else item.redrawn[what]
            pen = redrawn.pen(role, item.pens, item.layers.get(layer))
            if pen is not None and layer not in item.hidden:
                yield LineGroup(role, layer, pen, Polylines.of(own))

    def _hidden_elements(self) -> set[int]:
        """The elements whose lines lie on layers of which nothing is drawn."""
        if not self.item.hidden:
            return set()
        packed = self.linework.packed
        off = [k for k, name in enumerate(self.linework.layers) if name in self.item.hidden]
        return set(packed.element[np.isin(packed.layer, off)].tolist())

    def _pens(self) -> Iterator[Pen]:
        for pen in self.item.pens.values():
            yield pen
            yield from (pen.changed(change) for change in self.item.layers.values())
