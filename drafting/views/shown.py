"""Which of a building's elements a view shows. What is not shown is not there: it hides nothing and is not cut."""

from __future__ import annotations

from dataclasses import dataclass, fields
from typing import Any

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.errors import ViewError
from drafting.views.treatment import known


@dataclass(frozen=True)
class Shown:
    """What a view leaves out, by name, and the only elements it shows if it is limited to some.

    Attributes:
        without_layers, without_storeys, without_classes: names.
        without: ids of elements.
        only: ids of elements, a subset; empty for all.
    """

    without_layers: tuple[str, ...] = ()
    without_storeys: tuple[str, ...] = ()
    without_classes: tuple[str, ...] = ()
    without: tuple[str, ...] = ()
    only: tuple[str, ...] = ()

    def as_dict(self) -> dict[str, Any]:
        """What is left out, fit for JSON; the same choice gives the same dictionary."""
        return {f.name: sorted(set(names)) for f in fields(self) if (names := getattr(self, f.name))}

    @classmethod
    def from_dict(cls, given: Any) -> Shown:
        """The choice that `as_dict` wrote.

        Raises:
            ViewError: it is not made of lists of names.
        """
        values = known(given, cls, "choice of what is shown")
        for name, names in values.items():
            if not isinstance(names, list | tuple) or not all(isinstance(x, str) for x in names):
                raise ViewError(f"“{name}” is a list of names.")
        return cls(**{name: tuple(names) for name, names in values.items()})

    def of(self, building: Building) -> NDArray[np.bool_]:
        """(number of elements,) whether each is shown.

        A name that the building does not have leaves nothing out: a later version of it may lack it.
        """
        storeys = [s.name for s in building.storeys]
        layers, classes = set(self.without_layers), set(self.without_classes)
        off, only, without = set(self.without_storeys), set(self.only), set(self.without)
        return np.array(
            [
                e.layer not in layers
                and e.ifc_class not in classes
                and not (e.storey >= 0 and storeys[e.storey] in off)
                and e.id not in without
                and (not only or e.id in only)
                for e in building.elements
            ],
            bool,
        )

    def unknown(self, building: Building) -> list[str]:
        """The names that the building does not have."""
        there = (
            {e.layer for e in building.elements},
            {s.name for s in building.storeys},
            {e.ifc_class for e in building.elements},
            {e.id for e in building.elements},
            {e.id for e in building.elements},
        )
        return [
            name for f, names in zip(fields(self), there, strict=True) for name in getattr(self, f.name)
            if name not in names
        ]  # fmt: skip
