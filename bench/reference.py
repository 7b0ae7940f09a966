"""The polygonal hidden-line algorithm of the open-source geometry kernel, to measure the drawing engine
against."""

from __future__ import annotations

from itertools import pairwise
from typing import Any

import numpy as np
from OCP.BRep import BRep_Builder
from OCP.BRepBuilderAPI import BRepBuilderAPI_MakeShapeOnMesh
from OCP.BRepLib import BRepLib
from OCP.BRepMesh import BRepMesh_IncrementalMesh
from OCP.gp import gp_Ax2, gp_Dir, gp_Pnt
from OCP.HLRAlgo import HLRAlgo_Projector
from OCP.HLRBRep import HLRBRep_PolyAlgo, HLRBRep_PolyHLRToShape
from OCP.Poly import Poly_Triangle, Poly_Triangulation
from OCP.TopoDS import TopoDS_Compound

from drafting.building.topology import Topology
from drafting.views.camera import Camera

#: Planar triangles need no finer mesh than they are; mm.
DEFLECTION = 1.0
#: Two triangles within this angle (radians) of one plane have no edge between them.
SMOOTH = 1e-3


def shape_of(topology: Topology) -> Any:
    """The welded triangles of a building as the kernel's shape: one shell for each body, edges between facets
    of one plane marked as smooth."""
    builder, whole = BRep_Builder(), TopoDS_Compound()
    builder.MakeCompound(whole)
    order = np.argsort(topology.body, kind="stable")
    starts = np.searchsorted(topology.body[order], np.arange(int(topology.body.max()) + 2))
    for begin, end in pairwise(starts.tolist()):
        corners, local = np.unique(topology.faces[order[begin:end]].ravel(), return_inverse=True)
        mesh = Poly_Triangulation(len(corners), end - begin, False)
        for i, point in enumerate(topology.points[corners].tolist(), 1):
            mesh.SetNode(i, gp_Pnt(*point))
        for i, (a, b, c) in enumerate((local.reshape(-1, 3) + 1).tolist(), 1):
            mesh.SetTriangle(i, Poly_Triangle(a, b, c))
        body = BRepBuilderAPI_MakeShapeOnMesh(mesh)
        body.Build()
        builder.Add(whole, body.Shape())
    BRepMesh_IncrementalMesh(whole, DEFLECTION)
    BRepLib.EncodeRegularity_s(whole, SMOOTH)
    return whole


def draw(shape: Any, camera: Camera) -> tuple[Any, Any]:
    """The visible sharp edges and outlines of a shape."""
    algorithm = HLRBRep_PolyAlgo()
    algorithm.Load(shape)
    eye = gp_Ax2(
        gp_Pnt(*camera.origin.tolist()), gp_Dir(*camera.toward.tolist()), gp_Dir(*camera.right.tolist())
    )
    algorithm.Projector(HLRAlgo_Projector(eye))
    algorithm.Update()
    lines = HLRBRep_PolyHLRToShape()
    lines.Update(algorithm)
    return lines.VCompound(), lines.OutLineVCompound()
