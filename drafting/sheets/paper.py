"""Sheet sizes (ISO 216, ISO 5457), trimmed, in mm."""

from __future__ import annotations

from dataclasses import dataclass

from drafting.errors import PaperError

#: Landscape width and height.
SIZES: dict[str, tuple[float, float]] = {
    "A0": (1189, 841),
    "A1": (841, 594),
    "A2": (594, 420),
    "A3": (420, 297),
    "A4": (297, 210),
}
ORIENTATIONS = ("landscape", "portrait")


@dataclass(frozen=True)
class Paper:
    """A trimmed sheet: its size's name, and width and height in mm as it lies."""

    name: str
    width: float
    height: float

    @classmethod
    def of(cls, name: str, orientation: str = "landscape") -> Paper:
        """The paper of a size, one way or the other.

        Raises:
            PaperError: no such size or orientation.
        """
        wanted = name.strip().upper()
        if wanted not in SIZES:
            raise PaperError(f"“{name}” is no paper size. Sizes are {', '.join(SIZES)}.")
        if orientation not in ORIENTATIONS:
            raise PaperError(f"“{orientation}” is no way to lay a sheet. It is {' or '.join(ORIENTATIONS)}.")
        long, short = SIZES[wanted]
        width, height = (long, short) if orientation == "landscape" else (short, long)
        return cls(wanted, width, height)
