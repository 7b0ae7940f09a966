"""Reading a building from a file of plain meshes: glTF, GLB or OBJ. Each object becomes an element."""

from __future__ import annotations

import hashlib
import io
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import partial
from pathlib import Path
from typing import Any

import numpy as np
import trimesh
from numpy.typing import NDArray

from drafting.building.model import (
    NO_LAYER,
    NO_MATERIAL,
    Building,
    Element,
    Floats,
    Ints,
    Storey,
    no_places,
)
from drafting.building.readers.beside import FilesBeside
from drafting.building.readers.mesh_guesses import LIKELY_SIZE, likely_unit, likely_up, storey_height
from drafting.building.textures import Colour, Texture, gathered, of_any_size, texture_of
from drafting.building.units import UNIT_NAMES, UNITS
from drafting.errors import BuildingFileError
from drafting.progress import Progress, silent

MESH_FORMATS = (".glb", ".gltf", ".obj")
#: What an object is, for want of the file saying so: the open standard's class for a thing of no other.
PROXY = "IfcBuildingElementProxy"
STOREY = "Ground"


@dataclass(frozen=True, eq=False)
class _MeshPart:
    """A mesh of one material: the object it belongs to, its points in the file's unit, its faces, and where
    its points (n, 2) lie on the texture of the material, where that is said."""

    name: str
    points: Floats
    faces: Ints
    material: Any
    places: Floats | None = None

    @property
    def material_name(self) -> str:
        return getattr(self.material, "name", None) or NO_MATERIAL


def read_mesh_file(
    path: Path,
    progress: Progress = silent,
    name: str = "",
    *,
    unit: str | None = None,
    up: str | None = None,
    beside: Path | None = None,
) -> Building:
    """Read a glTF, GLB or OBJ file into a building in millimetres, z up, with one storey at its lowest point.

    Args:
        name: what people call the file, if not by its path.
        unit: one of UNITS. glTF is in metres by its standard; an OBJ file is taken to be in the unit that
            makes it a building, by its length and its storeys, with a warning.
        up: which axis points up, y or z. By the standard of glTF it is y, of an OBJ file mostly z; it is the
            other where most level surfaces lie so. What is assumed is said in a warning.
        beside: a folder with the files that came with it: its materials, textures and figures. None came if
            not given.

    Raises:
        BuildingFileError: the file is empty, broken, or holds no faces.
    """
    name = name or path.name
    form = Path(name).suffix.lower()
    if not path.stat().st_size:
        raise BuildingFileError(f"“{name}” is empty. Save or copy it again.")
    progress("Opening the file", 0.0)
    files = FilesBeside(beside)
    scene = _load(path, form, name, files)
    warnings = files.notes
    meshes = _placed(scene)
    if not meshes:
        raise BuildingFileError(
            f"“{name}” holds no faces. Export it with its surfaces, and not only lines or points."
        )
    corners = np.concatenate([part.points[part.faces] for part in meshes])
    usual, surely = ("z", 1.5) if form == ".obj" else ("y", 3.0)
    if up is None:
        up = likely_up(corners, usual, surely)
        if up != usual:
            warnings.append(
                f"Most level surfaces lie across {up}, so {up} is taken to point up, and not {usual}. "
                "Choose the other axis if the building lies on its side."
            )
        elif form == ".obj":
            warnings.append(
                "The file does not give its upward axis; z is assumed. Choose the other axis if the building "
                "lies on its side."
            )
    size = float(np.ptp(corners.reshape(-1, 3), axis=0).max())
    if unit is None:
        storey = storey_height(_upright(corners, up))
        unit = likely_unit(size, storey)
        # glTF is in metres by its standard; that is left only where no building is so large or small.
        if form != ".obj" and LIKELY_SIZE[0] <= size * UNITS["m"] <= LIKELY_SIZE[1]:
            unit = "m"
        elif form == ".obj" or unit != "m":
            length = f"{size * UNITS[unit] / 1000:.2f} m long"
            high = f", with storeys of {storey * UNITS[unit] / 1000:.2f} m" if storey else ""
            warnings.append(
                f"The unit is taken from the size; {UNIT_NAMES[unit]}s are assumed, which makes it "
                f"{length}{high}. Give the unit if that is wrong."
            )
    textures, notes = gathered((part.material_name, partial(_texture, part.material)) for part in meshes)
    warnings += notes
    building = _building(meshes, UNITS[unit], up, textures)
    schema = "OBJ" if form == ".obj" else "glTF 2.0"
    return replace(building, schema=schema, unit=UNIT_NAMES[unit], warnings=tuple(warnings))


def _load(path: Path, form: str, name: str, files: FilesBeside) -> trimesh.Scene:
    try:
        with of_any_size():
            # Of bytes alone, so that the path under which they are kept gives nothing its name.
            return trimesh.load_scene(
                io.BytesIO(path.read_bytes()),
                file_type=form[1:],
                resolver=files,
                process=False,
                split_objects=True,
                split_groups=True,
                group_material=True,
            )
    except Exception as error:
        if files.notes:
            raise BuildingFileError(f"“{name}” cannot be read: {files.notes[0]}") from error
        reason = (str(error).strip().splitlines() or ["the reader gave up on it"])[0].rstrip(".")
        raise BuildingFileError(
            f"“{name}” cannot be read as {form[1:].upper()}: {reason}. Export it again from the program "
            f"it comes from."
        ) from error


def _placed(scene: trimesh.Scene) -> list[_MeshPart]:
    """Every mesh of a scene where it stands."""
    parts = []
    for node in sorted(scene.graph.nodes_geometry):
        transform, geometry_name = scene.graph[node]
        mesh = scene.geometry[geometry_name]
        if (
            not isinstance(mesh, trimesh.Trimesh)
            or not len(mesh.faces)
            or not np.isfinite(mesh.vertices).all()
        ):
            continue
        # An object of several materials comes as several meshes under one node.
        whole = scene.graph.transforms.parents[node] if mesh.metadata.get("from_gltf_primitive") else node
        points = trimesh.transformations.transform_points(np.asarray(mesh.vertices, float), transform)
        faces = np.asarray(mesh.faces, np.int32)
        if np.linalg.det(transform[:3, :3]) < 0:
            faces = faces[:, ::-1]
        visual = mesh.visual
        places = getattr(visual, "uv", None)
        told = places is not None and np.shape(places) == (len(points), 2)
        lie = np.asarray(places, float) if told else None
        parts.append(_MeshPart(str(whole), points, faces, _material(visual), lie))
    return parts


def _material(visual: Any) -> Any:
    """The material of a mesh; None where the library has made one up, for want of the file giving one: its
    picture is of no format."""
    material = getattr(visual, "material", None)
    image = getattr(material, "image", None)
    return None if image is not None and image.format is None else material


def _upright(points: Floats, up: str) -> Floats:
    """Points (..., 3) with z up."""
    if up == "z":
        return points
    return np.stack([points[..., 0], -points[..., 2], points[..., 1]], axis=-1)


def _building(parts: list[_MeshPart], factor: float, up: str, textures: dict[str, Texture]) -> Building:
    names = sorted({part.name for part in parts})
    parts = sorted(parts, key=lambda part: part.name)
    materials: dict[str, int] = {}
    numbers = [materials.setdefault(part.material_name, len(materials)) for part in parts]
    starts = np.cumsum([0, *(len(part.points) for part in parts)])
    points = _upright(np.concatenate([part.points for part in parts]) * factor, up)
    counts = [len(part.faces) for part in parts]
    first: dict[str, str] = {}
    for part in parts:
        first.setdefault(part.name, part.material_name)
    return Building(
        elements=tuple(Element(_id_of(name), name, PROXY, 0, NO_LAYER, first[name]) for name in names),
        storeys=(Storey(STOREY, float(points[:, 2].min())),),
        materials=tuple(materials),
        vertices=points,
        triangles=np.concatenate([p.faces + start for p, start in zip(parts, starts, strict=False)]).astype(
            np.int32
        ),
        triangle_element=np.repeat([names.index(part.name) for part in parts], counts).astype(np.int32),
        triangle_material=np.repeat(numbers, counts).astype(np.int32),
        material_colours=_colours(parts, textures),
        textures=textures,
        texture_places=_places(parts) if textures else no_places(),
    )


def _places(parts: Sequence[_MeshPart]) -> NDArray[np.float32]:
    """(T, 3, 2) where the corners of all faces lie on textures."""
    unsaid = np.full((1, 3, 2), np.nan, np.float32)
    return np.concatenate(
        [
            np.repeat(unsaid, len(part.faces), axis=0) if part.places is None else part.places[part.faces]
            for part in parts
        ]
    ).astype(np.float32)


def _colours(parts: Sequence[_MeshPart], textures: dict[str, Texture]) -> dict[str, Colour]:
    """The colours of materials, by their names; of one with a texture the mean of that."""
    found: dict[str, Colour] = {}
    for part in parts:
        if part.material is None or part.material_name in found:
            continue
        red, green, blue, opacity = (np.asarray(part.material.main_color, float)[:4] / 255).tolist()
        texture = textures.get(part.material_name)
        found[part.material_name] = texture.mean if texture else (red, green, blue, opacity)
    return found


def _texture(material: Any) -> Texture | None:
    """The texture of a material, in the colour that the material gives it; None where it has none.

    Raises:
        ValueError: as of `texture_of`.
    """
    image = getattr(material, "baseColorTexture", None) or getattr(material, "image", None)
    if image is None:
        return None
    factor = getattr(material, "baseColorFactor", None)
    texture = texture_of(image)
    # By the standard of glTF the opacity of a texture counts where the material says so, and not otherwise.
    if hasattr(material, "alphaMode") and (material.alphaMode or "OPAQUE") == "OPAQUE":
        texture.pixels[:, :, 3] = 255
    return texture if factor is None else texture.tinted(np.asarray(material.main_color, float)[:4] / 255)


def _id_of(name: str) -> str:
    """An id that an object keeps from version to version as long as it keeps its name."""
    return hashlib.sha256(name.encode()).hexdigest()[:22]
