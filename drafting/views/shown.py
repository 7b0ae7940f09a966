"""Which of a building's elements a view shows. What is not shown is not there: it hides nothing and is not
cut."""

from __future__ import annotations

from dataclasses import dataclass, fields
from typing import Annotated

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from drafting.building.model import Building
from drafting.schema import CLOSED

Name = Annotated[str, Field(min_length=1, max_length=300)]
Names = Annotated[tuple[Name, ...], Field(max_length=100_000)]


@dataclass(frozen=True)
class Shown:
    """What a view leaves out, by name, and the only elements it shows if it is limited to some.

    Attributes:
        without_layers, without_storeys, without_classes: names.
        without: ids of elements.
        only: ids of elements, a subset; empty for all.
    """

    __pydantic_config__ = CLOSED

    without_layers: Annotated[Names, Field(description="Names of layers.")] = ()
    without_storeys: Annotated[Names, Field(description="Names of storeys.")] = ()
    without_classes: Annotated[Names, Field(description="Names of classes.")] = ()
    without: Annotated[Names, Field(description="Ids of elements.")] = ()
    only: Annotated[Names, Field(description="Ids of elements; all where it is empty.")] = ()

    def __post_init__(self) -> None:
        # The same choice is the same however it was typed: it is part of what drawings are kept under.
        for f in fields(self):
            object.__setattr__(self, f.name, tuple(sorted(set(getattr(self, f.name)))))

    def mask(self, building: Building) -> NDArray[np.bool_]:
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
        ids = {e.id for e in building.elements}
        known = {
            "without_layers": {e.layer for e in building.elements},
            "without_storeys": {s.name for s in building.storeys},
            "without_classes": {e.ifc_class for e in building.elements},
            "without": ids,
            "only": ids,
        }
        return [name for field, there in known.items() for name in getattr(self, field) if name not in there]


#: What a view shows where nothing is chosen.
SHOW_ALL = Shown()
