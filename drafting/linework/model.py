"""What a view computes to: lines that know why they are there, and cut regions."""

from __future__ import annotations

import gc
import gzip
import hashlib
import json
from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from functools import cached_property
from itertools import chain
from typing import Any, overload

import numpy as np
import orjson
from numpy.typing import NDArray

from drafting.views.camera import Camera
from drafting.views.spec import ViewSpec

Floats = NDArray[np.float64]

#: Raised whenever the engine would draw the same view differently, so that kept linework is drawn anew.
ENGINE_VERSION = 3

#: Line roles, the heaviest first; where two lines lie on each other the first is kept.
ROLES = ("cut", "profile", "edge", "seam", "far", "overhead", "hidden")
CUT, PROFILE, EDGE, SEAM, FAR, OVERHEAD, HIDDEN = range(7)
#: Decimals of a millimetre that are kept: far below what any scale shows.
DECIMALS = 4


@dataclass(frozen=True, eq=False)
class Line:
    """One drawn line. `points` is (n, 3): u, v, depth in mm; `band` counts the view's depth bands before it."""

    role: str
    element: str
    layer: str
    points: Floats
    band: int = 0


@dataclass(frozen=True, eq=False)
class Region:
    """What the cut goes through: rings of (n, 2) u, v in mm; the first is the outline, the others holes."""

    element: str
    material: str
    rings: tuple[Floats, ...]


@dataclass(frozen=True, eq=False)
class PackedLines:
    """All lines in one array: `points` (n, 2) u, v in mm, where each line begins in it, and which of them have each
    role and layer."""

    points: Floats
    starts: NDArray[np.int64]
    groups: dict[tuple[str, str], NDArray[np.int64]]

    @classmethod
    def of(cls, points: Floats, sizes: NDArray[np.int64], named: Iterable[tuple[str, str]]) -> PackedLines:
        """From the points of all lines, how many each has, and the role and layer of each."""
        groups: dict[tuple[str, str], list[int]] = defaultdict(list)
        for k, name in enumerate(named):
            groups[name].append(k)
        return cls(points[:, :2], np.cumsum(sizes) - sizes, {name: np.array(ks) for name, ks in groups.items()})


class ReadLines(Sequence[Line]):
    """Lines as they were read from JSON. Each becomes a Line when it is looked at, and a plot looks at none."""

    def __init__(self, rows: list[dict[str, Any]]) -> None:
        self._rows = rows
        lists = [row.pop("points") for row in rows]
        figures = np.fromiter(chain.from_iterable(chain.from_iterable(lists)), float)
        self._points = figures.reshape(-1, len(lists[0][0]) if lists else 3)
        self._ends = np.cumsum([0, *map(len, lists)])

    def __len__(self) -> int:
        return len(self._rows)

    @overload
    def __getitem__(self, k: int) -> Line: ...
    @overload
    def __getitem__(self, k: slice) -> tuple[Line, ...]: ...
    def __getitem__(self, k: int | slice) -> Line | tuple[Line, ...]:
        if isinstance(k, slice):
            return tuple(self[n] for n in range(*k.indices(len(self))))
        row, k = self._rows[k], k % len(self)
        points = self._points[self._ends[k] : self._ends[k + 1]]
        return Line(row["role"], row["element"], row["layer"], points, row.get("band", 0))

    @property
    def packed(self) -> PackedLines:
        return PackedLines.of(self._points, np.diff(self._ends), ((row["role"], row["layer"]) for row in self._rows))


@dataclass(frozen=True, eq=False)
class Linework:
    """The drawing of one view of one model version, in model millimetres and free of any scale."""

    camera: Camera
    lines: Sequence[Line]
    regions: tuple[Region, ...]
    notes: tuple[str, ...] = ()

    @cached_property
    def packed(self) -> PackedLines:
        """The lines as they are plotted: many at once. There has to be one at least."""
        if isinstance(self.lines, ReadLines):
            return self.lines.packed
        points = np.concatenate([line.points for line in self.lines])
        sizes = np.array([len(line.points) for line in self.lines])
        return PackedLines.of(points, sizes, ((line.role, line.layer) for line in self.lines))

    @property
    def extents(self) -> tuple[float, float, float, float] | None:
        """Least u, least v, greatest u, greatest v of all lines; None for an empty drawing."""
        if not self.lines:
            return None
        points = self.packed.points
        low, high = points.min(axis=0), points.max(axis=0)
        return float(low[0]), float(low[1]), float(high[0]), float(high[1])

    def as_dict(self) -> dict[str, Any]:
        """The documented JSON format, see docs/linework-format.md."""
        camera = self.camera
        return {
            "view": {name: getattr(camera, name).tolist() for name in ("right", "up", "toward", "origin")}
            | ({} if camera.distance is None else {"distance": camera.distance}),
            "extents": self.extents,
            "notes": list(self.notes),
            "lines": [
                {"role": x.role, "band": x.band, "element": x.element, "layer": x.layer}
                | {"points": x.points.round(DECIMALS).tolist()}
                for x in self.lines
            ],
            "regions": [
                {"element": r.element, "material": r.material, "rings": [k.round(DECIMALS).tolist() for k in r.rings]}
                for r in self.regions
            ],
        }

    def to_json(self) -> bytes:
        return json.dumps(self.as_dict(), separators=(",", ":"), allow_nan=False).encode()

    @classmethod
    def from_json(cls, text: bytes) -> Linework:
        """The linework that `to_json` wrote."""
        with _uncollected():
            given = orjson.loads(text)
            lines = ReadLines(given["lines"])
        right, up, toward, origin = (np.asarray(given["view"][n], float) for n in ("right", "up", "toward", "origin"))
        return cls(
            camera=Camera(right, up, toward, origin, distance=given["view"].get("distance")),
            lines=lines,
            regions=tuple(
                Region(r["element"], r["material"], tuple(np.asarray(k, float) for k in r["rings"]))
                for r in given["regions"]
            ),
            notes=tuple(given.get("notes", ())),
        )

    def to_gzip(self) -> bytes:
        """Compressed JSON; the same linework gives the same bytes."""
        return gzip.compress(self.to_json(), compresslevel=6, mtime=0)

    @classmethod
    def from_gzip(cls, data: bytes) -> Linework:
        return cls.from_json(gzip.decompress(data))


@contextmanager
def _uncollected() -> Iterator[None]:
    """While a great many small lists are made that all are kept, looking for those that are not would take longer than
    making them."""
    enabled = gc.isenabled()
    gc.disable()
    try:
        yield
    finally:
        if enabled:
            gc.enable()


def linework_key(model_digest: str, view: ViewSpec) -> str:
    """The key that a drawing is kept under: made of all it hangs on, so a stale one cannot pass for fresh."""
    given = json.dumps([ENGINE_VERSION, model_digest, view.as_dict()], sort_keys=True)
    return hashlib.sha256(given.encode()).hexdigest()
