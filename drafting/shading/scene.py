"""What a picture is made of: the faces that are seen, and those that cast shadows, each with its colour."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.linework import tolerances as tol
from drafting.linework.cuts import caps, cut_parts
from drafting.linework.ground import dug, is_upright
from drafting.linework.limits import cut_off, field_of_view
from drafting.linework.scene import Faces, faces_into_picture, faces_of, limit_faces
from drafting.shading.colours import NO_PALETTE, SEEN_THROUGH, Palette, colours_of, parts_of
from drafting.shading.textures import Textures, textures_on, untextured
from drafting.views.camera import Camera

Floats = NDArray[np.float64]

#: A plane that receives shadow reaches so many times as far as the building is large.
GROUND_REACH = 20.0
GROUND_COLOUR = (0.93, 0.92, 0.89, 1.0)
#: What is cut is paper, on which its fill and hatch are drawn.
CUT_COLOUR = (1.0, 1.0, 1.0, 1.0)
#: Materials that no building has: what is cut, and the plane that receives shadow.
CUT_MATERIAL, GROUND_MATERIAL = -1, -2


@dataclass(frozen=True, eq=False)
class Surfaces:
    """Faces along the axes of a camera. What `plane` says is their own number among `true`.

    Attributes:
        opaque, clear: as the picture has them: what hides, and what is seen through.
        casting: as the building has them: what casts shadows.
        terrain: (number of casting,) which of these are terrain.
        true: as the building has them, all of the opaque and then all of the clear.
        colours: (materials + 2, 4); the last two are of GROUND_MATERIAL and CUT_MATERIAL.
        textures: those on `true`.
    """

    opaque: Faces
    clear: Faces
    casting: Faces
    terrain: NDArray[np.bool_]
    true: Faces
    colours: Floats
    textures: Textures


def surfaces_of(
    building: Building,
    camera: Camera,
    shown: NDArray[np.bool_],
    ground: float | None,
    palette: Palette = NO_PALETTE,
    textured: bool = False,
) -> Surfaces:
    """What a camera sees of a building.

    Args:
        shown: (number of elements,) which of them are there.
        ground: the level of a plane that receives shadow; mm. None for none.
        palette: colours that materials have instead of their own.
        textured: whether the textures of materials are laid on its faces.
    """
    every = faces_of(building, camera)
    coloured, colours = _coloured(building, every, palette)
    # Until they are numbered anew, `plane` says of which triangle faces are a part.
    there = replace(coloured, plane=building.topology.face_source.astype(np.int32))
    if not shown.all():
        there = there.select(np.flatnonzero(shown[every.element]))
    if ground is not None:
        there = there.joined(_plane(building, camera, ground))
    casting, seen = there, there
    for number, cut in enumerate(camera.cuts):
        parts = cut_parts(building, camera, cut, every, shown)
        parts = dug(building, parts) if is_upright(camera) else parts
        part = cut_off(there, replace(cut, far=-np.inf)).joined(caps(parts, cut))
        limited = cut_off(there, cut).joined(caps(parts, cut))
        casting = part if not number else casting.joined(part)
        seen = limited if not number else seen.joined(limited)
    if camera.far is not None:
        seen = limit_faces(seen, (0.0, 0.0, 1.0, tol.IN_PLANE - camera.far))
    for plane in field_of_view(camera):
        seen = limit_faces(seen, plane)
    hides = colours[seen.material, 3] >= SEEN_THROUGH
    true = [seen.select(np.flatnonzero(which)) for which in (hides, ~hides)]
    count = len(true[0])
    numbered = [
        replace(faces, plane=np.arange(first, first + len(faces), dtype=np.int32))
        for faces, first in zip(true, (0, count), strict=True)
    ]
    opaque, clear = (faces_into_picture(faces, camera) for faces in numbered)
    if casting is seen:
        casting = true[0]  # nothing is cut: what is seen is what casts shadows
    else:
        casting = casting.select(np.flatnonzero(colours[casting.material, 3] >= SEEN_THROUGH))
    terrain = (casting.material == GROUND_MATERIAL) | (
        (casting.element >= 0) & np.append(building.ground, False)[casting.element]
    )
    every = true[0].joined(true[1])
    textures = (
        textures_on(building, camera, every.plane, every.material, frozenset(palette.materials))
        if textured and building.textures
        else untextured(len(every))
    )
    return Surfaces(opaque, clear, casting, terrain, every, colours, textures)


def _coloured(building: Building, faces: Faces, palette: Palette) -> tuple[Faces, Floats]:
    """Faces, and the colours of their materials: those of a layer that has a colour have one more material,
    unless they are seen through."""
    colours = colours_of(building, palette)
    material = faces.material.copy()
    layers = [element.layer for element in building.elements]
    for layer, colour in sorted(palette.layers.items()):
        of_layer = np.array([name == layer for name in layers], bool)
        opaque = colours[faces.material, 3] >= SEEN_THROUGH
        material[of_layer[faces.element] & opaque] = len(colours)
        colours = np.concatenate([colours, [(*parts_of(colour), 1.0)]])
    ends = np.array([GROUND_COLOUR, CUT_COLOUR], float)
    return replace(faces, material=material), np.concatenate([colours.reshape(-1, 4), ends])


def _plane(building: Building, camera: Camera, level: float) -> Faces:
    """A level plane below and about a building."""
    low, high = building.bounds
    middle, reach = (low + high) / 2, GROUND_REACH * float((high - low).max())
    corners = np.array(
        [
            [middle[0] + a * reach, middle[1] + b * reach, level]
            for a, b in ((-1, -1), (1, -1), (1, 1), (-1, 1))
        ]
    )
    along = camera.along_axes(corners)
    return Faces(
        along[[[0, 1, 2], [0, 2, 3]]],
        np.tile(camera.axes[:, 2], (2, 1)),
        np.full(2, -1, np.int32),
        np.full(2, -1, np.int32),
        np.full(2, GROUND_MATERIAL, np.int32),
        np.zeros(2, bool),
    )
