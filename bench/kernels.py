"""How long each geometry kernel reads a building file, and of how many products it gives a shape."""

from __future__ import annotations

import os
from pathlib import Path
from time import perf_counter
from typing import Any

import ifcopenshell
import ifcopenshell.geom
import numpy as np

from drafting.building.readers.ifc_shapes import FAST_KERNEL, SLOW_KERNELS, has_body


def by_kernel(source: Path) -> dict[str, tuple[float, int, int]]:
    """Seconds, products with a shape, and all products that have a body, by the kernel's name."""
    file = ifcopenshell.open(str(source))
    wanted = sum(has_body(product) for product in file.by_type("IfcProduct"))
    return {kernel: (*_read(file, kernel), wanted) for kernel in (FAST_KERNEL, *SLOW_KERNELS)}


def _read(file: Any, kernel: str) -> tuple[float, int]:
    geometry: Any = ifcopenshell.geom
    settings = geometry.settings()
    settings.set("weld-vertices", True)
    began, given = perf_counter(), 0
    iterator = geometry.iterator(settings, file, os.cpu_count() or 1, geometry_library=kernel)
    going = iterator.initialize()
    while going:
        given += len(np.asarray(iterator.get().geometry.faces)) > 0
        going = iterator.next()
    return perf_counter() - began, given


def print_kernels(source: Path) -> None:
    """Print them as a table."""
    print(f"\n{'Reading, by kernel':36s} {'seconds':>9s} {'shapes':>8s} {'of':>6s}")
    for kernel, (seconds, given, wanted) in by_kernel(source).items():
        print(f"{kernel:36s} {seconds:9.2f} {given:8d} {wanted:6d}")
