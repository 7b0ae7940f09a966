"""Textures: the pictures that a file lays on faces, as they are kept with its building."""

from __future__ import annotations

import io
from collections.abc import Callable, Iterable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from PIL import Image
from PIL.Image import Resampling

Floats = NDArray[np.float64]
Pixels = NDArray[np.uint8]
#: Red, green, blue and opacity, each 0 to 1.
Colour = tuple[float, float, float, float]

#: A texture is kept no wider or higher than this, and all of a building have no more pixels together.
MAX_SIDE, MAX_TEXELS = 2048, 16_000_000
#: Larger ones are not unpacked: their material has the colour that is given beside them.
MAX_UNPACKED = 50_000_000


@dataclass(frozen=True, eq=False)
class Texture:
    """A picture that is laid on faces, over and over.

    Attributes:
        pixels: (rows, columns, 4) red, green, blue and opacity, the uppermost row first.
        size: how wide and high it is on faces that do not say where it lies, real mm; there it is laid across
            and up each face.
    """

    pixels: Pixels
    size: tuple[float, float] = (1000.0, 1000.0)

    @property
    def mean(self) -> Colour:
        """The colour that it has from afar."""
        red, green, blue, opacity = (self.pixels.reshape(-1, 4).mean(axis=0) / 255).tolist()
        return red, green, blue, opacity

    def tinted(self, colour: Floats) -> Texture:
        """The same, multiplied by a colour (4,) of red, green, blue and opacity."""
        return replace(self, pixels=(self.pixels * np.clip(colour, 0, 1) + 0.5).astype(np.uint8))


def texture_of(image: Image.Image, size: tuple[float, float] = (1000.0, 1000.0)) -> Texture:
    """A picture as a texture, made smaller where it is large.

    Raises:
        ValueError: it is damaged or too large to be unpacked; the message says which, after “is”.
    """
    # A JPEG picture is unpacked no larger than it is wanted.
    share = MAX_SIDE / max(image.size)
    image.draft("RGB", (int(image.width * share), int(image.height * share)))
    if image.width * image.height > MAX_UNPACKED:
        raise ValueError(f"too large ({image.width:,} x {image.height:,} pixels)")
    try:
        pixels = image.convert("RGBA")
    except (OSError, ValueError, SyntaxError) as error:
        raise ValueError("damaged") from error
    return Texture(np.array(_within(pixels, MAX_SIDE)), size)


def opened_texture(data: bytes, size: tuple[float, float] = (1000.0, 1000.0)) -> Texture:
    """The texture in the bytes of a PNG or JPEG file.

    Raises:
        ValueError: as of `texture_of`.
    """
    with of_any_size():
        try:
            image = Image.open(io.BytesIO(data), formats=("PNG", "JPEG"))
        except (OSError, ValueError, SyntaxError) as error:
            raise ValueError("no PNG or JPEG picture") from error
        return texture_of(image, size)


@contextmanager
def of_any_size() -> Iterator[None]:
    """Within it a picture of any size can be opened, though not unpacked: `texture_of` says what is too
    large."""
    limit, Image.MAX_IMAGE_PIXELS = Image.MAX_IMAGE_PIXELS, None
    try:
        yield
    finally:
        Image.MAX_IMAGE_PIXELS = limit


def together_small(textures: Mapping[str, Texture]) -> dict[str, Texture]:
    """Textures by the names of their materials, the largest made smaller until they are no more than
    MAX_TEXELS together."""
    found = dict(textures)
    while found and sum(t.pixels.shape[0] * t.pixels.shape[1] for t in found.values()) > MAX_TEXELS:
        largest = max(found, key=lambda name: found[name].pixels.size)
        pixels = found[largest].pixels
        half = _within(Image.fromarray(pixels), max(pixels.shape[:2]) // 2)
        found[largest] = replace(found[largest], pixels=np.array(half))
    return found


def gathered(
    wanted: Iterable[tuple[str, Callable[[], Texture | None]]],
) -> tuple[dict[str, Texture], list[str]]:
    """Textures by the names of materials, and a sentence of each that cannot be used.

    Args:
        wanted: names, and what makes the texture of each; the first of a name counts.
    """
    found: dict[str, Texture] = {}
    notes: dict[str, str] = {}
    for name, make in wanted:
        if name in found or name in notes:
            continue
        try:
            texture = make()
        except ValueError as error:
            notes[name] = f"The texture of “{name}” is {error}. The material has a plain colour."
            continue
        if texture is not None:
            found[name] = texture
    return together_small(found), list(notes.values())


def _within(image: Image.Image, side: int) -> Image.Image:
    """A picture no wider and no higher than `side`."""
    longest = max(image.size)
    if longest <= side:
        return image
    width, height = (max(1, round(x * side / longest)) for x in image.size)
    return image.resize((width, height), Resampling.BOX)
