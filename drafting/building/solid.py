"""A building as it is sent to be looked at in 3D, once a version. See docs/solid-format.md."""

from __future__ import annotations

import gzip
import json

import numpy as np

from drafting.building.model import Building
from drafting.building.topology import BOUNDARY, FOLD

MAGIC = b"DFS1"
#: Folds sharper than this are drawn as lines in 3D; degrees.
CREASE = 20.0


def to_solid(building: Building) -> bytes:
    """The welded mesh with its sharp edges, element by element, as gzipped little-endian arrays.

    Places are single precision and measured from the building's middle, which keeps a hundredth of a
    millimetre across a hundred metres.
    """
    topology = building.topology
    element = building.triangle_element[topology.face_source]
    faces = topology.faces[np.argsort(element, kind="stable")]
    drawn = (topology.edge_kind == BOUNDARY) | ((topology.edge_kind == FOLD) & (topology.edge_angle > CREASE))
    edges = topology.edges[drawn]
    edge_owner = element[topology.edge_faces[drawn, 0]]
    edges = edges[np.argsort(edge_owner, kind="stable")]
    point_owner = np.zeros(len(topology.points), np.int64)
    point_owner[topology.faces] = element[:, None]
    low, high = building.bounds
    middle = np.round((low + high) / 2)

    numbers = np.arange(len(building.elements) + 1)
    face_at, edge_at, point_at = (
        np.searchsorted(np.sort(owner), numbers).tolist() for owner in (element, edge_owner, point_owner)
    )
    storeys = [s.name for s in building.storeys]
    header = {
        "origin": middle.tolist(),
        "points": len(topology.points),
        "triangles": len(faces),
        "edges": len(edges),
        "elements": [
            {
                "id": e.id,
                "name": e.name,
                "class": e.ifc_class,
                "storey": storeys[e.storey] if e.storey >= 0 else "",
                "layer": e.layer,
                "material": e.material,
                "points": [point_at[k], point_at[k + 1]],
                "triangles": [face_at[k], face_at[k + 1]],
                "edges": [edge_at[k], edge_at[k + 1]],
            }
            for k, e in enumerate(building.elements)
        ],
    }
    text = json.dumps(header, separators=(",", ":")).encode()
    text += b" " * (-len(text) % 4)
    whole = b"".join(
        [
            MAGIC,
            np.uint32(len(text)).tobytes(),
            text,
            (topology.points - middle).astype("<f4").tobytes(),
            faces.astype("<u4").tobytes(),
            edges.astype("<u4").tobytes(),
        ]
    )
    return gzip.compress(whole, compresslevel=6, mtime=0)
