"""What is seen at the places of a drawing, found out from the building that it was drawn from."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.geometry.boxes import box_about
from drafting.render.items import Drawing
from drafting.review.places import Eye, NamedElement, Placement, SeenDrawing
from drafting.shading.elements_seen import elements_seen
from drafting.shading.window import Window
from drafting.views.camera import Camera
from drafting.views.spec import AnyView

#: From place to place at which it is kept what is seen, paper mm, unless that would be more than these.
APART, MAX_PLACES = 0.5, 400_000


def seen_drawing(
    item: Drawing, name: str, camera: Camera, source: tuple[Building, AnyView] | None
) -> tuple[SeenDrawing, tuple[NDArray[np.int32], NDArray[np.float32]]]:
    """What is seen at the places of a drawing. Where it is not known what it was drawn from, `source` is
    None, and only where it lies is told."""
    box = box_about(item.clip)
    drawing = SeenDrawing(item.viewport, name, box, Placement.of(item), Eye.of(camera))
    if source is None:
        return drawing, (np.empty((0, 0), np.int32), np.empty((0, 0), np.float32))
    building, view = source
    apart = max(APART, math.sqrt(box.width * box.height / MAX_PLACES))
    columns, rows = (max(1, round(side / apart)) for side in (box.width, box.height))
    centre = drawing.placement.in_view(box.middle)
    window = Window(box.width, box.height, item.ratio, centre, item.turn)
    elements, depths = elements_seen(building, view, window, columns, rows)
    there = np.unique(elements[elements >= 0])
    numbers = np.full(elements.shape, -1, np.int32)
    inside = elements >= 0
    numbers[inside] = np.searchsorted(there, elements[inside])
    names = tuple(
        NamedElement(element.id, element.name, element.ifc_class)
        for element in (building.elements[k] for k in there.tolist())
    )
    whole = replace(drawing, columns=columns, rows=rows, elements=names)
    return whole, (numbers, depths.astype(np.float32))
