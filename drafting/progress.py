"""How long work tells how far it is."""

from collections.abc import Callable

#: Called with the stage in words and the share done, 0 to 1. May raise to stop the work.
Progress = Callable[[str, float], None]


def silent(stage: str, share: float) -> None:
    """A progress that nobody listens to."""
