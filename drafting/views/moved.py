"""Views of a building whose axes have been changed: they keep looking at the same place in it."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from drafting.building.axes import Axes, seen_in
from drafting.geometry.regions import Circle, Polygon, Rectangle, Region
from drafting.views.axonometric import Axonometric
from drafting.views.detail import Detail
from drafting.views.elevation import SIDE_BEARINGS, Elevation
from drafting.views.perspective import Perspective
from drafting.views.plan import Plan, RoofPlan
from drafting.views.received import Received
from drafting.views.section import Section
from drafting.views.spec import AnyView

Point2 = tuple[float, float]


@dataclass(frozen=True, eq=False)
class OnPaper:
    """Where u and v of a drawing went: turned by `matrix` (2, 2), then moved by `offset` (2,), mm."""

    matrix: NDArray[np.float64]
    offset: NDArray[np.float64]

    def point(self, at: Point2) -> Point2:
        u, v = (self.matrix @ np.array(at) + self.offset).tolist()
        return u, v

    @property
    def turned(self) -> bool:
        return not np.allclose(self.matrix, np.eye(2), atol=1e-9)


def in_new_axes(view: AnyView, axes: Axes) -> AnyView:
    """A view as it is told in other axes. Sections, perspectives and what is seen from a bearing look at what
    they looked at; plans, and elevations of a side, follow the new axes.

    Args:
        axes: the new ones, in the old.
    """
    if isinstance(view, Section):
        return replace(view, line=tuple(seen_in(axes, (x, y, 0.0))[:2] for x, y in view.line))
    if isinstance(view, Perspective):
        return replace(view, eye=seen_in(axes, view.eye), target=seen_in(axes, view.target))
    if isinstance(view, Elevation):
        bearing = None if view.bearing is None else (view.bearing + axes.turn) % 360.0
        at = _bearing(view)
        nearer = axes.origin[0] * np.sin(at) + axes.origin[1] * np.cos(at)
        near = None if view.near is None else view.near - float(nearer)
        return replace(view, bearing=bearing, near=near)
    if isinstance(view, Axonometric):
        return replace(view, bearing=None if view.bearing is None else (view.bearing + axes.turn) % 360.0)
    if isinstance(view, Detail):
        where = on_paper(view.of, axes)
        region = view.region if where is None else _moved(view.region, where)
        of = in_new_axes(view.of, axes)
        assert not isinstance(of, Detail | Perspective | Received)  # a view stays of its kind
        return replace(view, of=of, region=region)
    return view


def on_paper(view: AnyView, axes: Axes) -> OnPaper | None:
    """Where u and v of a view's drawing went when its axes changed; None where it shows another side now."""
    x, y, z = axes.origin
    if isinstance(view, Detail):
        return on_paper(view.of, axes)
    if isinstance(view, Plan | RoofPlan):
        corners = np.array([seen_in(axes, p)[:2] for p in ((0.0, 0.0, 0.0), (1.0, 0, 0), (0, 1.0, 0))])
        return OnPaper((corners[1:] - corners[0]).T, corners[0])
    if isinstance(view, Section):
        (ax, ay), (bx, by) = view.line[:2]
        # The viewer stands to the right of the line: u runs along it.
        right = np.array([bx - ax, by - ay]) / np.hypot(bx - ax, by - ay)
    elif isinstance(view, Elevation) and (view.bearing is not None or not axes.turn):
        at = _bearing(view)
        right = np.array([-np.cos(at), np.sin(at)])
    else:
        return None
    return OnPaper(np.eye(2), np.array([-float(right @ (x, y)), -z]))


def _bearing(view: Elevation) -> float:
    """Where its viewer stands, clockwise from the y axis; radians."""
    side = view.side or "north"
    return float(np.radians(SIDE_BEARINGS[side] if view.bearing is None else view.bearing))


def _moved(region: Region, where: OnPaper) -> Region:
    if isinstance(region, Circle):
        return replace(region, centre=where.point(region.centre))
    if isinstance(region, Rectangle) and not where.turned:
        return replace(region, corner=where.point(region.corner), opposite=where.point(region.opposite))
    return Polygon(tuple(where.point(corner) for corner in region.outline))
