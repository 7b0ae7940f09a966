"""Textures of surface styles in an IFC file (IfcSurfaceStyleWithTextures), and where they lie on faces."""

from __future__ import annotations

from collections import defaultdict
from typing import Any

import ifcopenshell.util.placement
import ifcopenshell.util.unit
import numpy as np
from numpy.typing import NDArray

from drafting.building.readers.beside import FilesBeside
from drafting.building.readers.ifc_mesh import MM_PER_METRE
from drafting.building.textures import MAX_UNPACKED, Floats, Texture, opened_texture

#: Corners lie in one place within this; metres.
SAME_PLACE, ODD = 1e-4, 0.3137
#: What an absent scale of a texture means (IfcCartesianTransformationOperator).
NO_SCALE = 1.0
#: Where the corners of triangles lie on a texture, by the places of all three and then of each.
_Known = defaultdict[tuple[tuple[int, ...], ...], dict[tuple[int, ...], tuple[float, float]]]


def texture_of_style(style: Any, beside: FilesBeside) -> Texture | None:
    """The first texture of an IfcSurfaceStyle; None where it has none.

    On faces for which the file does not say where it lies it is laid across and up, a metre to one repeat,
    less where its TextureTransform has a greater scale: so the coordinates are those of X3D, on which the
    standard's textures rest, in metres of the face.

    Raises:
        ValueError: it is damaged, too large, of an unknown kind, or did not come with the file.
    """
    for part in (style.Styles if style.is_a("IfcSurfaceStyle") else None) or ():
        if part.is_a("IfcSurfaceStyleWithTextures") and part.Textures:
            return _texture(part.Textures[0], beside)
    return None


def _texture(given: Any, beside: FilesBeside) -> Texture:
    size = _size(given)
    if given.is_a("IfcPixelTexture"):
        return Texture(_pixels(given), size)
    if given.is_a("IfcBlobTexture"):
        return opened_texture(_bytes(given.RasterCode or ""), size)
    if given.is_a("IfcImageTexture"):
        name = getattr(given, "URLReference", None) or getattr(given, "UrlReference", None) or ""
        try:
            return opened_texture(beside.get(name), size)
        except FileNotFoundError as error:
            raise ValueError("missing") from error
    raise ValueError(f"of a kind that is not read ({given.is_a()})")


def _size(given: Any) -> tuple[float, float]:
    """How wide and high a texture is on a face, mm."""
    transform = given.TextureTransform
    across = (transform and transform.Scale) or NO_SCALE
    up = (transform and getattr(transform, "Scale2", None)) or across
    if not (across > 0 and up > 0):
        raise ValueError("given no size")
    return MM_PER_METRE / across, MM_PER_METRE / up


def _pixels(given: Any) -> NDArray[np.uint8]:
    """(rows, columns, 4) of an IfcPixelTexture, which gives its rows from the lowest up."""
    width, height, components = given.Width, given.Height, given.ColourComponents
    if width * height > MAX_UNPACKED:
        raise ValueError(f"too large ({width:,} x {height:,} pixels)")
    data = b"".join(_bytes(pixel) for pixel in given.Pixel or ())
    whole = min(width, height) >= 1 and components in (1, 2, 3, 4)
    if not whole or len(data) != width * height * components:
        raise ValueError("damaged: it has another number of pixels than it says")
    parts = np.frombuffer(data, np.uint8).reshape(height, width, components)[::-1]
    found = np.full((height, width, 4), 255, np.uint8)
    found[:, :, :3] = parts[:, :, :3] if components >= 3 else parts[:, :, :1]
    if components in (2, 4):
        found[:, :, 3] = parts[:, :, -1]
    return found


def _bytes(bits: str) -> bytes:
    """The bytes of a binary value, which the reader of the file gives as noughts and ones."""
    return int(bits or "0", 2).to_bytes(len(bits) // 8, "big") if len(bits) % 8 == 0 else b""


class TexturePlaces:
    """Where an IFC file lays textures: the maps of its triangulated face sets
    (IfcIndexedTriangleTextureMap)."""

    def __init__(self, file: Any) -> None:
        self.unit = float(ifcopenshell.util.unit.calculate_unit_scale(file))
        self.maps: dict[int, Any] = {}
        if file.schema != "IFC2X3":
            for given in file.by_type("IfcIndexedTriangleTextureMap"):
                if given.MappedTo.is_a("IfcTriangulatedFaceSet"):
                    self.maps[given.MappedTo.id()] = given

    def on(self, product: Any, corners: Floats, faces: NDArray[np.int32]) -> NDArray[np.float32] | None:
        """(n, 3, 2) where the corners of a product's faces lie; NaN where it is not said, None where it is
        said of none.

        Args:
            corners: (c, 3) of its shape in its own axes; metres.
        """
        if not self.maps or not product.Representation:
            return None
        known: _Known = defaultdict(dict)
        for representation in product.Representation.Representations:
            for item in representation.Items:
                self._learn(item, np.eye(4), known)
        if not known:
            return None
        found = np.full((len(faces), 3, 2), np.nan, np.float32)
        for k, face in enumerate(_keys(corners)[faces].tolist()):
            ring = [tuple(corner) for corner in face]
            places = known.get(tuple(sorted(ring)))
            if places:
                found[k] = [places[corner] for corner in ring]
        return found

    def _learn(self, item: Any, matrix: Floats, known: _Known) -> None:
        """Add the places of an item's triangles, by their corners."""
        if item.is_a("IfcMappedItem"):
            inner = matrix @ ifcopenshell.util.placement.get_mappeditem_transformation(item)
            for part in item.MappingSource.MappedRepresentation.Items:
                if not part.is_a("IfcMappedItem"):
                    self._learn(part, inner, known)
            return
        given = self.maps.get(item.id())
        if given is None:
            return
        points, texels = np.array(item.Coordinates.CoordList, float), given.TexCoords.TexCoordsList
        rings = np.array(item.CoordIndex, np.int64) - 1
        lies = np.array(given.TexCoordIndex or item.CoordIndex, np.int64) - 1
        if rings.shape != lies.shape or not _within(rings, len(points)) or not _within(lies, len(texels)):
            return
        keys = _keys((points @ matrix[:3, :3].T + matrix[:3, 3]) * self.unit).tolist()
        for ring, lie in zip(rings.tolist(), lies.tolist(), strict=True):
            corners, places = [tuple(keys[k]) for k in ring], [tuple(texels[k]) for k in lie]
            known[tuple(sorted(corners))].update(zip(corners, places, strict=True))


def _keys(points: Floats) -> NDArray[np.int64]:
    """Whole numbers (n, 3) that are the same for points in one place. They are counted from no round figure,
    so that none that is usual lies on a border."""
    return np.floor(points / SAME_PLACE + ODD).astype(np.int64)


def _within(numbers: NDArray[np.int64], count: int) -> bool:
    return bool(len(numbers) and numbers.min() >= 0 and numbers.max() < count)
