"""The templates that are built in. An office makes its own from copies of them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from drafting.sheets.fields import FIELDS
from drafting.sheets.template import Across, Part, TemplateSpec, Up

#: The key of the picture that stands for the office's logo, whichever that is.
LOGO = "logo"
#: Widths of the lines between fields and round a title block, mm (ISO 7200 leaves them to ISO 128).
RULE, OUTLINE = 0.18, 0.5
#: ISO 7200: the title block is 180 mm wide; ISO 5457 puts it at the lower right of the frame.
BLOCK_WIDTH, BLOCK_HEIGHT = 180.0, 68.0
STRIP_RIGHT, STRIP_BOTTOM = 64.0, 30.0


def _cell(
    field: str, x: float, y: float, width: float, height: float, size: float = 2.5, *, bold: bool = False,
    lines: int = 1, across: Across = "right", up: Up = "bottom", right: float | None = None,
) -> Part:  # fmt: skip
    """A field with its caption in an outlined box; `right` in place of a width where it runs from side to
    side."""
    end = x + width if right is None else right
    words = FIELDS[field].caption
    return Part(
        "field",
        x,
        y,
        end,
        y + height,
        across,
        up,
        RULE,
        field=field,
        words=words,
        size=size,
        bold=bold,
        lines=lines,
    )


def _row(
    names: Sequence[str], x: float, y: float, width: float, height: float, across: Across = "right"
) -> Iterator[Part]:
    for k, name in enumerate(names):
        yield _cell(name, x + k * width, y, width, height, across=across)


def _block() -> Iterator[Part]:
    """The title block at the lower right, after ISO 7200, with the revisions above it."""
    x, third = -BLOCK_WIDTH, 26.4
    yield Part("rectangle", x, 0, 0, BLOCK_HEIGHT, fill="#ffffff")
    yield from _row(("scale", "paper", "sheet_of", "revision", "project_number"), x, 0, third, 9)
    yield from _row(("creator", "checker", "approver", "date", "status"), x, 9, third, 9)
    yield _cell("number", -48, 0, 48, 18, 7, bold=True)
    yield _cell("site", x, 18, 66, 10)
    yield _cell("client", x, 28, 66, 10)
    yield Part("rectangle", x, 38, x + 18, 50, width=RULE)
    yield Part("image", x + 1.5, 39.5, x + 16.5, 48.5, picture=LOGO)
    yield _cell("practice", x + 18, 38, 48, 12, 3.5, bold=True, lines=2)
    yield _cell("supplementary_title", -114, 18, 114, 9)
    yield _cell("title", -114, 27, 114, 13, 5, bold=True, lines=2)
    yield _cell("project", -114, 40, 114, 10, 3.5)
    yield Part("revisions", x, 50, 0, BLOCK_HEIGHT, width=RULE)
    yield Part("rectangle", x, 0, 0, BLOCK_HEIGHT, width=OUTLINE)


def _strip_right() -> Iterator[Part]:
    """A strip along the right edge: what is looked for first lies at its foot."""
    x, half = -STRIP_RIGHT, STRIP_RIGHT / 2
    yield Part("rectangle", x, 0, 0, 0, up="both", fill="#ffffff")
    yield _cell("number", x, 0, STRIP_RIGHT, 20, 10, bold=True)
    for k, pair in enumerate((
        ("sheet_of", "revision"), ("scale", "paper"), ("approver", "approved_on"), ("checker", "checked_on"),
        ("creator", "drawn_on"), ("status", "purpose"), ("project_number", "date"),
    )):  # fmt: skip
        yield from _row(pair, x, 20 + 9 * k, half, 9)
    yield _cell("supplementary_title", x, 83, STRIP_RIGHT, 11, lines=2)
    yield _cell("title", x, 94, STRIP_RIGHT, 22, 5, bold=True, lines=3)
    yield Part("revisions", x, 116, 0, -58, up="both", width=RULE)
    yield _cell("site", x, -58, STRIP_RIGHT, 11, lines=2, up="top")
    yield _cell("client", x, -47, STRIP_RIGHT, 11, lines=2, up="top")
    yield _cell("project", x, -36, STRIP_RIGHT, 16, 3.5, bold=True, lines=2, up="top")
    yield Part("rectangle", x, -20, x + 20, 0, up="top", width=RULE)
    yield Part("image", x + 2, -18, x + 18, -2, up="top", picture=LOGO)
    yield _cell("practice", x + 20, -20, STRIP_RIGHT - 20, 20, 3.5, bold=True, lines=3, up="top")
    yield Part("rectangle", x, 0, 0, 0, up="both", width=OUTLINE)


def _strip_bottom() -> Iterator[Part]:
    """A strip along the bottom: the title between the office and the figures."""
    yield Part("rectangle", 0, 0, 0, STRIP_BOTTOM, across="both", fill="#ffffff")
    yield Part("rectangle", 0, 14, 20, STRIP_BOTTOM, across="left", width=RULE)
    yield Part("image", 2, 16, 18, 28, across="left", picture=LOGO)
    yield _cell("practice", 20, 14, 44, 16, 3.5, bold=True, lines=2, across="left")
    yield _cell("client", 0, 0, 64, 14, lines=2, across="left")
    yield _cell("project", 64, 20, 0, 10, 3.5, across="both", right=-190)
    yield _cell("title", 64, 8, 0, 12, 5, bold=True, across="both", right=-190)
    yield _cell("supplementary_title", 64, 0, 0, 8, across="both", right=-190)
    upper = ("creator", "drawn_on", "checker", "checked_on", "approver", "approved_on", "purpose")
    lower = ("scale", "paper", "sheet_of", "revision", "date", "status", "project_number")
    yield _cell("site", -190, 20, 140, 10)
    yield from _row(upper, -190, 10, 20, 10)
    yield from _row(lower, -190, 0, 20, 10)
    yield _cell("document_type", -50, 20, 50, 10)
    yield _cell("number", -50, 0, 50, 20, 10, bold=True)
    yield Part("rectangle", 0, 0, 0, STRIP_BOTTOM, across="both", width=OUTLINE)


def _plain() -> Iterator[Part]:
    """No more than which sheet it is, on one line."""
    yield Part("field", -140, 2, -24, 10, field="title", size=3.5, align="right")
    yield Part("field", -22, 2, -2, 10, field="number", size=3.5, bold=True, align="right")


#: By their keys: the name for people, and what it is made of.
TEMPLATE_PRESETS: dict[str, tuple[str, TemplateSpec]] = {
    "block": ("Corner block", TemplateSpec(kept=(0.0, BLOCK_HEIGHT, 0.0, 0.0), parts=tuple(_block()))),
    "strip-right": (
        "Right strip",
        TemplateSpec(kept=(0.0, 0.0, STRIP_RIGHT, 0.0), parts=tuple(_strip_right())),
    ),
    "strip-bottom": (
        "Bottom strip",
        TemplateSpec(kept=(0.0, STRIP_BOTTOM, 0.0, 0.0), parts=tuple(_strip_bottom())),
    ),
    "plain": (
        "Plain",
        TemplateSpec(
            frame=0.35, zones=False, centring=False, kept=(0.0, 10.0, 0.0, 0.0), parts=tuple(_plain())
        ),
    ),
}
DEFAULT_TEMPLATE = "block"
STANDARD = TEMPLATE_PRESETS[DEFAULT_TEMPLATE][1]
