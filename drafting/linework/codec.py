"""Linework as a file: packed arrays that open without an object for any line. See docs/linework-format.md."""

from __future__ import annotations

import gzip
import json
from typing import Any

import numpy as np
from numpy.typing import NDArray

from drafting.geometry.polylines import Polylines
from drafting.linework.model import DECIMALS, Linework, PackedLines, PackedRegions, camera_as_dict
from drafting.views.camera import Camera

MAGIC = b"DFL1"
#: Fast to open; better compression takes four times as long to write for a twentieth of the size.
LEVEL = 4
#: The arrays in the order in which they follow the header, widest first so that each begins at a multiple of
#: its size.
_ARRAYS = (
    ("points", "<f8"), ("ring_points", "<f8"),
    ("depths", "<f4"), ("starts", "<u4"), ("ring_starts", "<u4"), ("region_starts", "<u4"),
    ("line_element", "<u4"), ("line_layer", "<u4"), ("region_element", "<u4"), ("region_material", "<u4"),
    ("role", "<i1"), ("band", "<i1"),
)  # fmt: skip
#: Names, and sentences, of the header; as a Linework has them after its arrays.
_NAMES = ("elements", "layers", "materials", "notes", "classes", "made_of")


def encode(linework: Linework) -> bytes:
    """A drawing as a compressed file; the same drawing gives the same bytes. Places are rounded to DECIMALS
    of a millimetre."""
    packed, regions = linework.packed, linework.packed_regions
    points = packed.lines.points.round(DECIMALS)
    arrays: dict[str, NDArray[Any]] = {
        "points": points[:, :2],
        "depths": points[:, 2],
        "starts": packed.lines.starts,
        "role": packed.role,
        "band": packed.band,
        "line_element": packed.element,
        "line_layer": packed.layer,
        "ring_points": regions.rings.points.round(DECIMALS),
        "ring_starts": regions.rings.starts,
        "region_starts": regions.starts,
        "region_element": regions.element,
        "region_material": regions.material,
    }
    header = {
        "view": camera_as_dict(linework.camera),
        "extents": linework.extents,
        **{name: getattr(linework, name) for name in _NAMES},
        "arrays": [[name, form, int(arrays[name].size)] for name, form in _ARRAYS],
    }
    text = json.dumps(header, separators=(",", ":"), allow_nan=False).encode()
    text += b" " * (-(len(text) + 8) % 8)
    body = b"".join(np.ascontiguousarray(arrays[name], form).tobytes() for name, form in _ARRAYS)
    return gzip.compress(MAGIC + np.uint32(len(text)).tobytes() + text + body, LEVEL, mtime=0)


def decode(data: bytes) -> Linework:
    """The drawing that `encode` wrote.

    Raises:
        ValueError: the file holds no linework, or of another format.
    """
    raw = gzip.decompress(data)
    if raw[:4] != MAGIC:
        raise ValueError("This is no linework file.")
    size = int(np.frombuffer(raw, np.uint32, 1, 4)[0])
    header: dict[str, Any] = json.loads(raw[8 : 8 + size])
    at, arrays = 8 + size, {}
    for name, form, count in header["arrays"]:
        arrays[name] = np.frombuffer(raw, form, count, at)
        at += arrays[name].nbytes
    view = header["view"]
    right, up, toward, origin = (
        np.asarray(view[name], float) for name in ("right", "up", "toward", "origin")
    )
    points = np.column_stack([arrays["points"].reshape(-1, 2), arrays["depths"]])
    starts, ring_starts, region_starts = (
        arrays[n].astype(np.int64) for n in ("starts", "ring_starts", "region_starts")
    )
    return Linework(
        Camera(right, up, toward, origin, distance=view.get("distance")),
        PackedLines(
            Polylines(points, starts),
            arrays["role"],
            arrays["band"],
            arrays["line_element"].astype(np.int32),
            arrays["line_layer"].astype(np.int32),
        ),
        PackedRegions(
            Polylines(arrays["ring_points"].reshape(-1, 2), ring_starts),
            region_starts,
            arrays["region_element"].astype(np.int32),
            arrays["region_material"].astype(np.int32),
        ),
        # What was issued before all of these were kept is read for ever.
        *(tuple(header.get(name, ())) for name in _NAMES),
    )
