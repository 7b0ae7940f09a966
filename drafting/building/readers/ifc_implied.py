"""The box that the definition of a shape implies, worked out from its figures alone: what a kernel gives is
held against it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

import ifcopenshell.util.placement
import numpy as np

from drafting.building.model import Floats

#: A shape is where its definition says when it is within this: metres, or a share of its size.
SLACK, SLACK_SHARE = 0.005, 0.02
#: Shapes of more faces than this are meshes that no kernel can misread, and take long to look through.
MAX_FACES = 60
#: Shapes that are taken from others, so that something of these may be missing.
_LESSENED = ("IfcBooleanResult", "IfcBooleanClippingResult")


@dataclass(frozen=True, eq=False)
class ImpliedBox:
    """Least and greatest corner, (3,) each, in the element's own axes and the file's unit; `whole` where the
    shape reaches all of its sides."""

    low: Floats
    high: Floats
    whole: bool

    def fits(self, points: Floats, unit: float) -> bool:
        """Whether a shape is where its definition says it is.

        Args:
            points: (n, 3) of its corners; metres.
            unit: metres in the file's unit.
        """
        low, high = self.low * unit, self.high * unit
        slack = SLACK + SLACK_SHARE * float(np.linalg.norm(high - low))
        least, most = points.min(axis=0), points.max(axis=0)
        within = bool((least >= low - slack).all() and (most <= high + slack).all())
        filled = bool((least <= low + slack).all() and (most >= high - slack).all())
        return within and (filled or not self.whole)


def implied_box(product: Any) -> ImpliedBox | None:
    """The box of a product's body; None where its definition is of a kind that says it less plainly, or
    something is added to it (IfcRelProjectsElement)."""
    if getattr(product, "HasProjections", ()):
        return None
    bodies = [r for r in product.Representation.Representations if r.RepresentationIdentifier == "Body"]
    found = [_corners(item) for body in bodies for item in body.Items]
    known = [pair for pair in found if pair is not None]
    if not found or len(known) < len(found):
        return None
    points = np.concatenate([corners for corners, _ in known])
    whole = all(whole for _, whole in known) and not getattr(product, "HasOpenings", ())
    return ImpliedBox(points.min(axis=0), points.max(axis=0), whole)


def _corners(item: Any) -> tuple[Floats, bool] | None:
    """(n, 3) corners of what a shape fills, and whether it reaches all of them."""
    if item.is_a() in _LESSENED:
        whole = _corners(item.FirstOperand) if item.Operator == "DIFFERENCE" else None
        return None if whole is None else (whole[0], False)
    if item.is_a() == "IfcExtrudedAreaSolid":
        flat = _profile(item.SweptArea)
        if flat is None:
            return None
        along = np.array(item.ExtrudedDirection.DirectionRatios, float)
        along *= item.Depth / np.linalg.norm(along)
        corners = np.concatenate([flat, flat + along])
        return (_placed(corners, item.Position) if item.Position else corners), True
    if item.is_a("IfcMappedItem"):
        found = [_corners(of) for of in item.MappingSource.MappedRepresentation.Items]
        known = [pair for pair in found if pair is not None]
        if len(known) < len(found):
            return None
        matrix: Floats = ifcopenshell.util.placement.get_mappeditem_transformation(item)
        corners = np.concatenate([corners for corners, _ in known])
        return corners @ matrix[:3, :3].T + matrix[:3, 3], all(whole for _, whole in known)
    if item.is_a("IfcFacetedBrep") and len(item.Outer.CfsFaces) <= MAX_FACES:
        loops = (bound.Bound for face in item.Outer.CfsFaces for bound in face.Bounds)
        points = [p.Coordinates for loop in loops if loop.is_a("IfcPolyLoop") for p in loop.Polygon]
        return (np.array(points, float), True) if points else None
    return None


def _profile(profile: Any) -> Floats | None:
    """(n, 3) corners of the box of a profile, in its plane."""
    corners: list[tuple[float, float]] | None = None
    if profile.is_a() == "IfcRectangleProfileDef":
        x, y = profile.XDim / 2, profile.YDim / 2
        corners = [(-x, -y), (x, -y), (x, y), (-x, y)]
    elif profile.is_a() == "IfcArbitraryClosedProfileDef":
        corners = _polygon(profile.OuterCurve)
    if not corners:
        return None
    flat = np.array([(*corner, 0.0) for corner in corners], float)
    place = getattr(profile, "Position", None)
    return _placed(flat, place) if place else flat


def _polygon(curve: Any) -> list[tuple[float, float]] | None:
    if curve.is_a("IfcPolyline"):
        return [p.Coordinates[:2] for p in curve.Points]
    if curve.is_a("IfcIndexedPolyCurve") and _straight(curve.Segments or ()):
        return [tuple(p[:2]) for p in curve.Points.CoordList]
    return None


def _straight(segments: Iterable[Any]) -> bool:
    return all(segment.is_a("IfcLineIndex") for segment in segments)


def _placed(points: Floats, placement: Any) -> Floats:
    matrix: Floats = ifcopenshell.util.placement.get_axis2placement(placement)
    return points @ matrix[:3, :3].T + matrix[:3, 3]
