"""Symbols as they are drawn: their lines as one, and their words upright."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.annotation.pieces import PlacedPiece
from drafting.annotation.symbols import Symbol, laid, symbol_place
from drafting.render.items import Fill, FlatItem, Inserted, Path, Text
from drafting.styles.pens import INK, Pen

LAYER = "Symbols"


def symbol_items(placed: PlacedPiece, symbol: Symbol, source: str) -> Iterator[FlatItem]:
    """The lines of a symbol, and the words in its places for them."""
    drawn = placed.symbol
    if drawn is None:
        return
    ratio = placed.ratio if drawn.real else 1.0
    at = placed.points[0]
    for line in drawn.lines:
        ring = tuple(laid(line.points, symbol, at, ratio, placed.turn))
        if line.fill and line.closed:
            yield Fill((ring,), line.fill, LAYER, source)
        if line.width:
            yield Path(ring, Pen(line.width, line.colour), LAYER, source, closed=line.closed)
    for k, place in enumerate(drawn.words):
        words = symbol.words[k] if k < len(symbol.words) and symbol.words[k] else place.text
        if words:
            (middle,) = laid([place.at], symbol, at, ratio, placed.turn)
            yield Text(middle, words, place.size, INK, anchor="middle", layer=LAYER, viewport=source)


def inserted(placed: PlacedPiece, symbol: Symbol, parts: list[FlatItem]) -> Inserted:
    """A symbol with what its lines are in the library, for outputs that have such a thing of their own."""
    ratio = placed.ratio if placed.symbol and placed.symbol.real else 1.0
    size, turn, at = symbol_place(symbol, placed.points[0], ratio, placed.turn)
    name = placed.label[0] if placed.label else symbol.symbol
    viewport = placed.viewport.id if placed.viewport else ""
    return Inserted(
        tuple(parts),
        name,
        symbol.symbol,
        at,
        round(turn, 6),
        round(size, 9),
        symbol.mirrored,
        LAYER,
        viewport,
    )
