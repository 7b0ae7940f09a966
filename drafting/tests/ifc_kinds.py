"""Every kind of shape that building files have, one element of each, written for the tests."""

from __future__ import annotations

import uuid
from pathlib import Path
from typing import Any

import ifcopenshell
import ifcopenshell.guid

#: Those of which nothing is left, or which no kernel can make.
EMPTY = frozenset({"all taken", "zero height", "csg cylinder", "csg cone"})


def write_kinds(path: Path) -> set[str]:
    """Write a file with an element for each kind of shape, named after it; the names."""
    f: Any = ifcopenshell.file(schema="IFC4")
    g = ifcopenshell.guid.new

    def P(*c: float) -> Any:
        return f.createIfcCartesianPoint(tuple(map(float, c)))

    def D(*c: float) -> Any:
        return f.createIfcDirection(tuple(map(float, c)))

    def ax(at: Any = (0, 0, 0), z: Any = None, x: Any = None) -> Any:
        return f.createIfcAxis2Placement3D(P(*at), D(*z) if z else None, D(*x) if x else None)

    def ax2(at: Any = (0, 0)) -> Any:
        return f.createIfcAxis2Placement2D(P(*at))

    ctx = f.createIfcGeometricRepresentationContext(None, "Model", 3, 1e-5, ax())
    units = f.createIfcUnitAssignment([
        f.createIfcSIUnit(None, "LENGTHUNIT", "MILLI", "METRE"),
        f.createIfcSIUnit(None, "PLANEANGLEUNIT", None, "RADIAN"),
    ])  # fmt: skip
    project = f.createIfcProject(g(), None, "p", None, None, None, None, [ctx], units)
    place = f.createIfcLocalPlacement(None, ax())
    st = f.createIfcBuildingStorey(g(), None, "Ground", None, None, place, None, None, "ELEMENT", 0.0)
    f.createIfcRelAggregates(g(), None, None, None, project, [st])
    up = D(0, 0, 1)

    def poly(pts):
        q = [P(*p) for p in pts]
        return f.createIfcPolyline([*q, q[0]])

    def arb(pts):
        return f.createIfcArbitraryClosedProfileDef("AREA", None, poly(pts))

    def ext(prof, h=1000, axes=None):
        return f.createIfcExtrudedAreaSolid(prof, axes or ax(), up, float(h))

    sq = [(0, 0), (600, 0), (600, 400), (0, 400)]

    def box(dx=0, h=1000):
        return ext(arb([(x + dx, y) for x, y in sq]), h)

    def brep(faces):
        return f.createIfcFacetedBrep(
            f.createIfcClosedShell(
                [
                    f.createIfcFace(
                        [f.createIfcFaceOuterBound(f.createIfcPolyLoop([P(*p) for p in face]), True)]
                    )
                    for face in faces
                ]
            )
        )

    a, b, c, d = (0, 0, 0), (600, 0, 0), (600, 400, 0), (0, 400, 0)
    A, B, C, DD = [(x, y, 1000) for x, y, z in (a, b, c, d)]
    cube = [[a, d, c, b], [A, B, C, DD], [a, b, B, A], [b, c, C, B], [c, d, DD, C], [d, a, A, DD]]
    kinds: dict[str, Any] = {}
    kinds["extruded rectangle"] = ext(f.createIfcRectangleProfileDef("AREA", None, ax2(), 600.0, 400.0))
    kinds["extruded circle"] = ext(f.createIfcCircleProfileDef("AREA", None, ax2(), 200.0))
    kinds["circle hollow"] = ext(f.createIfcCircleHollowProfileDef("AREA", None, ax2(), 200.0, 10.0))
    kinds["rect hollow"] = ext(
        f.createIfcRectangleHollowProfileDef("AREA", None, ax2(), 600.0, 400.0, 10.0, None, None)
    )
    kinds["rounded rect"] = ext(
        f.createIfcRoundedRectangleProfileDef("AREA", None, ax2(), 600.0, 400.0, 50.0)
    )
    kinds["I"] = ext(f.createIfcIShapeProfileDef("AREA", None, ax2(), 200.0, 300.0, 10.0, 15.0, 12.0))
    kinds["L"] = ext(f.createIfcLShapeProfileDef("AREA", None, ax2(), 200.0, 200.0, 10.0))
    kinds["U"] = ext(f.createIfcUShapeProfileDef("AREA", None, ax2(), 200.0, 100.0, 10.0, 10.0))
    kinds["T"] = ext(f.createIfcTShapeProfileDef("AREA", None, ax2(), 200.0, 100.0, 10.0, 10.0))
    kinds["C"] = ext(f.createIfcCShapeProfileDef("AREA", None, ax2(), 200.0, 100.0, 5.0, 30.0))
    kinds["Z"] = ext(f.createIfcZShapeProfileDef("AREA", None, ax2(), 200.0, 100.0, 5.0, 5.0))
    kinds["trapezium"] = ext(f.createIfcTrapeziumProfileDef("AREA", None, ax2(), 600.0, 400.0, 400.0, 100.0))
    kinds["ellipse"] = ext(f.createIfcEllipseProfileDef("AREA", None, ax2(), 300.0, 200.0))
    kinds["with voids"] = ext(
        f.createIfcArbitraryProfileDefWithVoids(
            "AREA", None, poly(sq), [poly([(100, 100), (500, 100), (500, 300), (100, 300)])]
        )
    )
    kinds["void touching edge"] = ext(
        f.createIfcArbitraryProfileDefWithVoids(
            "AREA", None, poly(sq), [poly([(0, 100), (500, 100), (500, 300), (0, 300)])]
        )
    )
    kinds["duplicate points"] = ext(arb([(0, 0), (0, 0), (600, 0), (600, 400), (600, 400), (0, 400)]))
    kinds["self touching"] = ext(
        arb([(0, 0), (300, 0), (300, 400), (300, 0), (600, 0), (600, 400), (0, 400)])
    )
    kinds["bow tie"] = ext(arb([(0, 0), (600, 400), (600, 0), (0, 400)]))
    kinds["clockwise"] = ext(arb(sq[::-1]))
    kinds["collinear"] = ext(arb([(0, 0), (300, 0), (600, 0), (600, 400), (300, 400), (0, 400)]))
    kinds["thin 1mm"] = ext(arb([(0, 0), (600, 0), (600, 1), (0, 1)]))
    kinds["oblique"] = f.createIfcExtrudedAreaSolid(arb(sq), ax(), D(0.3, 0, 1), 1000.0)
    kinds["down"] = f.createIfcExtrudedAreaSolid(arb(sq), ax(), D(0, 0, -1), 1000.0)
    kinds["revolved"] = f.createIfcRevolvedAreaSolid(
        arb([(300, 0), (600, 0), (600, 400), (300, 400)]),
        ax(),
        f.createIfcAxis1Placement(P(0, 0, 0), D(0, 1, 0)),
        1.5,
    )
    kinds["revolved full"] = f.createIfcRevolvedAreaSolid(
        arb([(300, 0), (600, 0), (600, 400), (300, 400)]),
        ax(),
        f.createIfcAxis1Placement(P(0, 0, 0), D(0, 1, 0)),
        6.283185307179586,
    )
    kinds["swept disk"] = f.createIfcSweptDiskSolid(
        f.createIfcPolyline([P(0, 0, 0), P(0, 0, 1000), P(600, 0, 1000)]), 30.0, None, None, None
    )
    kinds["brep"] = brep(cube)
    kinds["brep with hole"] = brep(cube)
    kinds["brep open"] = brep(cube[:-1])
    kinds["brep duplicate face"] = brep([*cube, cube[0]])
    kinds["brep nonplanar"] = brep(
        [
            [a, d, c, b],
            [A, B, (600, 400, 1100), DD],
            [a, b, B, A],
            [b, c, (600, 400, 1100), B],
            [c, d, DD, (600, 400, 1100)],
            [d, a, A, DD],
        ]
    )
    kinds["brep inside out"] = brep([x[::-1] for x in cube])
    kinds["brep mixed"] = brep([cube[0][::-1], *cube[1:]])
    kinds["face set"] = f.createIfcTriangulatedFaceSet(
        f.createIfcCartesianPointList3D([[float(v) for v in p] for p in (a, b, c, d, A, B, C, DD)]),
        None,
        True,
        [
            (1, 3, 2),
            (1, 4, 3),
            (5, 6, 7),
            (5, 7, 8),
            (1, 2, 6),
            (1, 6, 5),
            (2, 3, 7),
            (2, 7, 6),
            (3, 4, 8),
            (3, 8, 7),
            (4, 1, 5),
            (4, 5, 8),
        ],
        None,
    )
    kinds["polygonal face set"] = f.createIfcPolygonalFaceSet(
        f.createIfcCartesianPointList3D([[float(v) for v in p] for p in (a, b, c, d, A, B, C, DD)]),
        True,
        [
            f.createIfcIndexedPolygonalFace(i)
            for i in ((1, 4, 3, 2), (5, 6, 7, 8), (1, 2, 6, 5), (2, 3, 7, 6), (3, 4, 8, 7), (4, 1, 5, 8))
        ],
        None,
    )
    kinds["surface model"] = f.createIfcFaceBasedSurfaceModel(
        [
            f.createIfcConnectedFaceSet(
                [
                    f.createIfcFace(
                        [f.createIfcFaceOuterBound(f.createIfcPolyLoop([P(*p) for p in face]), True)]
                    )
                    for face in cube
                ]
            )
        ]
    )
    kinds["shell model"] = f.createIfcShellBasedSurfaceModel(
        [
            f.createIfcOpenShell(
                [
                    f.createIfcFace(
                        [f.createIfcFaceOuterBound(f.createIfcPolyLoop([P(*p) for p in face]), True)]
                    )
                    for face in cube[:4]
                ]
            )
        ]
    )
    kinds["boolean difference"] = f.createIfcBooleanResult(
        "DIFFERENCE", box(), ext(arb([(100, -50), (200, -50), (200, 500), (100, 500)]), 2000)
    )
    kinds["boolean union"] = f.createIfcBooleanResult("UNION", box(), box(600))
    kinds["boolean union apart"] = f.createIfcBooleanResult("UNION", box(), box(900))
    kinds["intersection"] = f.createIfcBooleanResult("INTERSECTION", box(), box(300))
    kinds["all taken"] = f.createIfcBooleanResult(
        "DIFFERENCE", box(), ext(arb([(-100, -100), (900, -100), (900, 900), (-100, 900)]), 3000)
    )
    kinds["difference flush"] = f.createIfcBooleanResult(
        "DIFFERENCE", box(), ext(arb([(0, 0), (300, 0), (300, 400), (0, 400)]), 1000)
    )
    half = f.createIfcHalfSpaceSolid(f.createIfcPlane(ax((0, 0, 500), (0.3, 0, 1))), False)
    kinds["clipping"] = f.createIfcBooleanClippingResult("DIFFERENCE", box(), half)
    pb = f.createIfcPolygonalBoundedHalfSpace(
        f.createIfcPlane(ax((0, 0, 500), (0.0, 0, 1))),
        False,
        ax(),
        poly([(-10, -10), (300, -10), (300, 900), (-10, 900)]),
    )
    kinds["bounded clipping"] = f.createIfcBooleanClippingResult("DIFFERENCE", box(), pb)
    kinds["csg block"] = f.createIfcCsgSolid(f.createIfcBlock(ax(), 600.0, 400.0, 1000.0))
    kinds["csg cylinder"] = f.createIfcCsgSolid(f.createIfcRightCircularCylinder(ax(), 1000.0, 200.0))
    kinds["csg cone"] = f.createIfcCsgSolid(f.createIfcRightCircularCone(ax(), 1000.0, 200.0))
    kinds["csg sphere"] = f.createIfcCsgSolid(f.createIfcSphere(ax(), 200.0))
    kinds["pyramid"] = f.createIfcCsgSolid(f.createIfcRectangularPyramid(ax(), 600.0, 400.0, 1000.0))
    kinds["indexed curve"] = ext(
        f.createIfcArbitraryClosedProfileDef(
            "AREA",
            None,
            f.createIfcIndexedPolyCurve(
                f.createIfcCartesianPointList2D(
                    [[0.0, 0.0], [600.0, 0.0], [700.0, 200.0], [600.0, 400.0], [0.0, 400.0]]
                ),
                [
                    f.createIfcLineIndex((1, 2)),
                    f.createIfcArcIndex((2, 3, 4)),
                    f.createIfcLineIndex((4, 5, 1)),
                ],
                False,
            ),
        )
    )
    kinds["derived profile"] = ext(
        f.createIfcDerivedProfileDef(
            "AREA",
            None,
            arb(sq),
            f.createIfcCartesianTransformationOperator2D(None, None, P(100, 100), 1.0),
            None,
        )
    )
    kinds["composite profile"] = ext(
        f.createIfcCompositeProfileDef("AREA", None, [arb(sq), arb([(x + 900, y) for x, y in sq])], None)
    )
    kinds["tapered"] = f.createIfcExtrudedAreaSolidTapered(
        f.createIfcRectangleProfileDef("AREA", None, ax2(), 600.0, 400.0),
        ax(),
        up,
        1000.0,
        f.createIfcRectangleProfileDef("AREA", None, ax2(), 300.0, 200.0),
    )
    m = f.createIfcRepresentationMap(ax(), f.createIfcShapeRepresentation(ctx, "Body", "SweptSolid", [box()]))
    kinds["mapped"] = f.createIfcMappedItem(
        m, f.createIfcCartesianTransformationOperator3D(None, None, P(100, 0, 0), 1.0, None)
    )
    kinds["mapped scaled"] = f.createIfcMappedItem(
        m, f.createIfcCartesianTransformationOperator3D(None, None, P(100, 0, 0), 2.0, None)
    )
    kinds["mapped non uniform"] = f.createIfcMappedItem(
        m,
        f.createIfcCartesianTransformationOperator3DnonUniform(None, None, P(100, 0, 0), 2.0, None, 1.0, 0.5),
    )
    kinds["mapped mirrored"] = f.createIfcMappedItem(
        m,
        f.createIfcCartesianTransformationOperator3D(D(-1, 0, 0), D(0, 1, 0), P(100, 0, 0), 1.0, D(0, 0, 1)),
    )
    kinds["far away"] = ext(arb(sq), 1000, ax((1e9, 1e9, 0)))
    kinds["zero height"] = f.createIfcExtrudedAreaSolid(arb(sq), ax(), up, 1e-9)
    elements = []
    for name, item in kinds.items():
        guid = ifcopenshell.guid.compress(uuid.uuid5(uuid.NAMESPACE_OID, name).hex)
        element = f.createIfcBuildingElementProxy(guid, None, name)
        element.ObjectPlacement = f.createIfcLocalPlacement(
            st.ObjectPlacement, ax((len(elements) * 2000.0, 0, 0))
        )
        shape = f.createIfcShapeRepresentation(ctx, "Body", "SolidModel", [item])
        element.Representation = f.createIfcProductDefinitionShape(None, None, [shape])
        elements.append(element)
    f.createIfcRelContainedInSpatialStructure(g(), None, None, None, elements, st)
    f.write(str(path))
    return set(kinds)
