"""A small writer of valid IFC4 buildings: storeys, elements of swept solids, openings, layers, materials,
colours."""

from __future__ import annotations

import uuid
from collections.abc import Sequence
from typing import Any

import ifcopenshell
import ifcopenshell.guid

Point = tuple[float, float]
Point3 = tuple[float, float, float]
Across = tuple[str, float, int]

_NAMESPACE = uuid.UUID("5d0c0d9e-6b0e-5f3a-9a37-2f5a1f0d8c11")


class IfcWriter:
    """Builds one IFC4 file in millimetres. Ids come from names, so that the same script makes the same
    ids."""

    def __init__(self, project: str, site: str, building: str, when: str) -> None:
        self.file: Any = ifcopenshell.file(schema="IFC4")
        self._made: dict[str, int] = {}
        f = self.file
        header = f.header
        header.file_name.time_stamp = when
        header.file_name.name = "observatory.ifc"
        person = f.createIfcPerson(FamilyName="Demo")
        organisation = f.createIfcOrganization(Name="Sandreed Drawing Office")
        author = f.createIfcPersonAndOrganization(person, organisation)
        program = f.createIfcApplication(organisation, "1", "Demo building script", "demo")
        self.history = f.createIfcOwnerHistory(author, program, None, "ADDED", None, None, None, 1767225600)
        millimetre = f.createIfcSIUnit(None, "LENGTHUNIT", "MILLI", "METRE")
        square = f.createIfcSIUnit(None, "AREAUNIT", None, "SQUARE_METRE")
        cube = f.createIfcSIUnit(None, "VOLUMEUNIT", None, "CUBIC_METRE")
        radian = f.createIfcSIUnit(None, "PLANEANGLEUNIT", None, "RADIAN")
        units = f.createIfcUnitAssignment([millimetre, square, cube, radian])
        self.context = f.createIfcGeometricRepresentationContext(
            None, "Model", 3, 1e-5, self._axes((0, 0, 0)), f.createIfcDirection((0.0, 1.0))
        )
        self.body = f.createIfcGeometricRepresentationSubContext(
            "Body", "Model", None, None, None, None, self.context, None, "MODEL_VIEW", None
        )
        self.project = self._rooted(
            "IfcProject", project, RepresentationContexts=[self.context], UnitsInContext=units
        )
        self.site = self._rooted(
            "IfcSite", site, ObjectPlacement=self._placement(None), CompositionType="ELEMENT"
        )
        self.building = self._rooted(
            "IfcBuilding",
            building,
            ObjectPlacement=self._placement(self.site.ObjectPlacement),
            CompositionType="ELEMENT",
        )
        self._aggregate(self.project, [self.site])
        self._aggregate(self.site, [self.building])
        self._storeys: list[Any] = []
        self._spaces: dict[Any, list[Any]] = {}
        self._contained: dict[Any, list[Any]] = {self.site: []}
        self._layers: dict[str, list[Any]] = {}
        self._styles: dict[str, Any] = {}
        self._materials: dict[str, Any] = {}
        self._material_users: dict[tuple[str, Across | None], list[Any]] = {}

    # Structure

    def storey(self, name: str, elevation: float) -> Any:
        """A storey with its floor at an elevation in mm."""
        placement = self._placement(self.building.ObjectPlacement, (0, 0, elevation))
        storey = self._rooted(
            "IfcBuildingStorey",
            name,
            ObjectPlacement=placement,
            CompositionType="ELEMENT",
            Elevation=float(elevation),
        )
        self._storeys.append(storey)
        self._contained[storey] = []
        return storey

    def grid(
        self, across: Sequence[tuple[str, Point, Point]], along: Sequence[tuple[str, Point, Point]]
    ) -> None:
        """A grid of straight named lines, in two directions."""
        f = self.file

        def axes(lines: Sequence[tuple[str, Point, Point]]) -> list[Any]:
            points = {
                end: f.createIfcCartesianPoint(tuple(map(float, end))) for _, *ends in lines for end in ends
            }
            return [
                f.createIfcGridAxis(name, f.createIfcPolyline([points[a], points[b]]), True)
                for name, a, b in lines
            ]

        placement = self._placement(self.building.ObjectPlacement)
        grid = self._rooted(
            "IfcGrid", "Grid", ObjectPlacement=placement, UAxes=axes(across), VAxes=axes(along)
        )
        self._contained[self.site].append(grid)

    def element(
        self,
        ifc_class: str,
        name: str,
        storey: Any,
        items: Sequence[Any],
        layer: str,
        material: str = "",
        across: Across | None = None,
        place: tuple[Point3, Point3] | None = None,
        **attributes: Any,
    ) -> Any:
        """An element with a body of `items` in model coordinates, or where it has a `place` in axes of its
        own: from a point of the model, the first along a level direction, the third up. Without `material`,
        its items' styles name theirs.

        `across` says how the layers of its material lie: the axis through them, where along it the first
        begins, and whether they go up it (1) or down (-1).
        """
        (x, y, z), along = place or ((0, 0, 0), None)
        at = (x, y, z - (getattr(storey, "Elevation", 0) or 0.0))
        placement = self._placement(storey.ObjectPlacement, at, along)
        product = self._rooted(
            ifc_class, name, ObjectPlacement=placement, Representation=self._shape(items, layer), **attributes
        )
        self._contained[storey].append(product)
        if material:
            self._material_users.setdefault((material, across), []).append(product)
        return product

    def properties(self, ifc_class: str, product: Any, name: str, **attributes: Any) -> None:
        """Give a product a set of properties that the standard defines."""
        known = self._rooted(ifc_class, f"{product.Name} {name}", **attributes)
        self._rooted(
            "IfcRelDefinesByProperties",
            f"{product.Name} {name} users",
            RelatedObjects=[product],
            RelatingPropertyDefinition=known,
        )

    def room(
        self, storey: Any, number: str, name: str, outline: Sequence[Point], floor: float, top: float
    ) -> Any:
        """A space over an outline, from its floor to its top."""
        solid = self.prism(outline, floor, top, "")
        elevation = getattr(storey, "Elevation", 0) or 0.0
        space = self._rooted(
            "IfcSpace",
            number,
            LongName=name,
            ObjectPlacement=self._placement(storey.ObjectPlacement, (0, 0, -elevation)),
            Representation=self._shape([solid], None),
            CompositionType="ELEMENT",
            PredefinedType="INTERNAL",
        )
        self._spaces.setdefault(storey, []).append(space)
        return space

    def opening(self, host: Any, name: str, items: Sequence[Any], filled_by: Any = None) -> Any:
        """Take `items` out of a host; the element that fills the hole, if any, is related to it."""
        place = self._placement(host.ObjectPlacement.PlacementRelTo, tuple(self._offset(host)))
        hole = self._rooted(
            "IfcOpeningElement",
            name,
            ObjectPlacement=place,
            Representation=self._shape(items, None),
            PredefinedType="OPENING",
        )
        self._rooted(
            "IfcRelVoidsElement", f"{name} void", RelatingBuildingElement=host, RelatedOpeningElement=hole
        )
        if filled_by is not None:
            self._rooted(
                "IfcRelFillsElement",
                f"{name} filling",
                RelatingOpeningElement=hole,
                RelatedBuildingElement=filled_by,
            )
        return hole

    def material(self, name: str) -> None:
        """Declare a plain material."""
        self._materials[name] = self.file.createIfcMaterial(name)

    def layered(self, name: str, layers: Sequence[tuple[str, float]]) -> None:
        """Declare a build-up of (material, thickness in mm), outside first."""
        made = []
        for material, thickness in layers:
            if material not in self._materials:
                self.material(material)
            made.append(
                self.file.createIfcMaterialLayer(self._materials[material], float(thickness), None, material)
            )
        self._materials[name] = self.file.createIfcMaterialLayerSet(made, name)

    def write(self, path: str) -> None:
        """Finish the relations and write the file."""
        f = self.file
        self._aggregate(self.building, self._storeys)
        for storey, spaces in self._spaces.items():
            self._rooted(
                "IfcRelAggregates", f"{storey.Name} rooms", RelatingObject=storey, RelatedObjects=spaces
            )
        for place, things in self._contained.items():
            if things:
                self._rooted(
                    "IfcRelContainedInSpatialStructure",
                    f"{place.Name} contents",
                    RelatingStructure=place,
                    RelatedElements=things,
                )
        for name, shapes in self._layers.items():
            f.createIfcPresentationLayerAssignment(name, None, shapes, None)
        for (name, across), users in self._material_users.items():
            material = self._materials[name]
            if across:
                axis, at, way = across
                direction, sense = {"x": "AXIS1", "y": "AXIS2"}[axis], "POSITIVE" if way > 0 else "NEGATIVE"
                material = f.createIfcMaterialLayerSetUsage(material, direction, sense, float(at))
            self._rooted(
                "IfcRelAssociatesMaterial", f"{name} users", RelatedObjects=users, RelatingMaterial=material
            )
        f.write(path)

    # Solids, all in model coordinates

    def box(self, low: Point3, high: Point3, style: str) -> Any:
        """A box between two corners."""
        (x0, y0, z0), (x1, y1, z1) = low, high
        profile = [(x0, y0), (x1, y0), (x1, y1), (x0, y1)]
        return self.prism(profile, z0, z1, style)

    def prism(
        self, profile: Sequence[Point], z0: float, z1: float, style: str, holes: Sequence[Any] = ()
    ) -> Any:
        """A profile in x, y swept upward."""
        return self._sweep(self._polygon(profile), self._axes((0, 0, z0)), z1 - z0, style)

    def along_x(self, profile: Sequence[Point], x0: float, x1: float, style: str) -> Any:
        """A profile in y, z swept along x."""
        return self._sweep(
            self._polygon(profile), self._axes((x0, 0, 0), (1, 0, 0), (0, 1, 0)), x1 - x0, style
        )

    def along_y(self, profile: Sequence[Point], y0: float, y1: float, style: str) -> Any:
        """A profile in x, z swept along y."""
        turned = [(-x, z) for x, z in profile]
        return self._sweep(
            self._polygon(turned), self._axes((0, y0, 0), (0, 1, 0), (-1, 0, 0)), y1 - y0, style
        )

    def disc_y(self, centre: Point3, radius: float, depth: float, style: str, hollow: float = 0.0) -> Any:
        """A round bar (or ring of width `hollow`) along y, from its centre on the near face."""
        f = self.file
        place = f.createIfcAxis2Placement2D(f.createIfcCartesianPoint((0.0, 0.0)), None)
        profile = (
            f.createIfcCircleHollowProfileDef("AREA", None, place, float(radius), float(hollow))
            if hollow
            else f.createIfcCircleProfileDef("AREA", None, place, float(radius))
        )
        return self._sweep(profile, self._axes(centre, (0, 1, 0), (-1, 0, 0)), depth, style)

    def post(self, centre: Point3, radius: float, height: float, style: str) -> Any:
        """A round post standing on a point."""
        f = self.file
        place = f.createIfcAxis2Placement2D(f.createIfcCartesianPoint((0.0, 0.0)), None)
        profile = f.createIfcCircleProfileDef("AREA", None, place, float(radius))
        return self._sweep(profile, self._axes(centre), height, style)

    def facets(self, points: Sequence[Point3], faces: Sequence[tuple[int, ...]], style: str) -> Any:
        """A closed solid from its corners and its faces, each a ring of indices seen anticlockwise from
        outside."""
        f = self.file
        coordinates = f.createIfcCartesianPointList3D([tuple(map(float, p)) for p in points])
        rings = [f.createIfcIndexedPolygonalFace([i + 1 for i in face]) for face in faces]
        return self._styled(f.createIfcPolygonalFaceSet(coordinates, True, rings, None), style)

    def colour(
        self,
        name: str,
        red: float,
        green: float,
        blue: float,
        see_through: float = 0.0,
        texture: tuple[bytes, tuple[float, float]] | None = None,
    ) -> None:
        """Declare a style by its name; the name is also the material of an element's part. A texture is a PNG
        file, and how wide and high it is, mm."""
        f = self.file
        parts = [f.createIfcSurfaceStyleShading(f.createIfcColourRgb(None, red, green, blue), see_through)]
        if texture:
            parts.append(f.createIfcSurfaceStyleWithTextures([self._texture(*texture)]))
        self._styles[name] = f.createIfcSurfaceStyle(name, "BOTH", parts)

    # Plumbing

    def _texture(self, png: bytes, size: tuple[float, float]) -> Any:
        f = self.file
        across, up = (1000.0 / side for side in size)
        zero = f.createIfcCartesianPoint((0.0, 0.0))
        transform = f.createIfcCartesianTransformationOperator2DnonUniform(None, None, zero, across, up)
        bits = "".join(f"{byte:08b}" for byte in png)
        return f.createIfcBlobTexture(True, True, None, transform, None, "PNG", bits)

    def _rooted(self, ifc_class: str, name: str, **attributes: Any) -> Any:
        key = f"{ifc_class}/{name}"
        again = self._made.get(key, 0)
        self._made[key] = again + 1
        guid = ifcopenshell.guid.compress(uuid.uuid5(_NAMESPACE, f"{key}/{again}").hex)
        return self.file.create_entity(
            ifc_class, GlobalId=guid, OwnerHistory=self.history, Name=name, **attributes
        )

    def _aggregate(self, whole: Any, parts: Sequence[Any]) -> None:
        self._rooted(
            "IfcRelAggregates", f"{whole.Name} parts", RelatingObject=whole, RelatedObjects=list(parts)
        )

    def _axes(
        self, at: Sequence[float], z: Sequence[float] | None = None, x: Sequence[float] | None = None
    ) -> Any:
        f = self.file
        return f.createIfcAxis2Placement3D(
            f.createIfcCartesianPoint(tuple(map(float, at))),
            f.createIfcDirection(tuple(map(float, z))) if z else None,
            f.createIfcDirection(tuple(map(float, x))) if x else None,
        )

    def _placement(
        self, relative_to: Any, at: Sequence[float] = (0, 0, 0), along: Sequence[float] | None = None
    ) -> Any:
        axes = self._axes(at, (0, 0, 1), along) if along else self._axes(at)
        return self.file.createIfcLocalPlacement(relative_to, axes)

    def _offset(self, product: Any) -> Sequence[float]:
        return product.ObjectPlacement.RelativePlacement.Location.Coordinates

    def _polygon(self, points: Sequence[Point]) -> Any:
        f = self.file
        made = [f.createIfcCartesianPoint(tuple(map(float, p))) for p in points]
        return f.createIfcArbitraryClosedProfileDef("AREA", None, f.createIfcPolyline([*made, made[0]]))

    def _sweep(self, profile: Any, axes: Any, depth: float, style: str) -> Any:
        up = self.file.createIfcDirection((0.0, 0.0, 1.0))
        return self._styled(self.file.createIfcExtrudedAreaSolid(profile, axes, up, float(depth)), style)

    def _styled(self, item: Any, style: str) -> Any:
        if style:
            self.file.createIfcStyledItem(item, [self._styles[style]], None)
        return item

    def _shape(self, items: Sequence[Any], layer: str | None) -> Any:
        kinds = {i.is_a("IfcSweptAreaSolid") for i in items}
        kind = "SweptSolid" if kinds == {True} else "Tessellation" if kinds == {False} else "SolidModel"
        shape = self.file.createIfcShapeRepresentation(self.body, "Body", kind, list(items))
        if layer:
            self._layers.setdefault(layer, []).append(shape)
        return self.file.createIfcProductDefinitionShape(None, None, [shape])
