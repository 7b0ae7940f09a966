"""What is kept for years has a version: older ones are brought up by small steps, newer ones are refused."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from drafting.errors import DraftingError

#: What is kept, as plain data of one version, as the next version has it.
Step = Callable[[Any], Any]


@dataclass(frozen=True)
class KeptForm:
    """A form in which something is kept.

    Attributes:
        what: how it is called in a sentence, such as “record of a sheet”.
        newest: the version that is written today.
        steps: by each older version that is read, what makes the next of it.
        error: raised where a version cannot be read.
    """

    what: str
    newest: int
    steps: Mapping[int, Step]
    error: type[DraftingError]

    def brought_up(self, given: Any, version: int) -> Any:
        """Plain data of a version as the newest has them.

        >>> form = KeptForm("note", 2, {1: lambda note: {"words": note["text"]}}, DraftingError)
        >>> form.brought_up({"text": "Oak"}, 1)
        {'words': 'Oak'}

        Raises:
            DraftingError: of the type `error`; it is newer than what is known here, or too old.
        """
        if version > self.newest:
            raise self.error(
                f"This {self.what} was written by a newer Dunefold (its form {version}, and {self.newest} is "
                "known here). Update Dunefold."
            )
        while version < self.newest:
            if version not in self.steps:
                raise self.error(
                    f"This {self.what} has a form ({version}) that is not read any more. Open it with an "
                    "older Dunefold first."
                )
            given, version = self.steps[version](given), version + 1
        return given


def as_it_is(given: Any) -> Any:
    """Of a version that only added something that has a default."""
    return given
