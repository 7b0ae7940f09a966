"""Tables as workbooks that spreadsheets open (ECMA-376)."""

from __future__ import annotations

import io
from collections.abc import Sequence

from openpyxl import Workbook
from openpyxl.styles import Alignment, Font
from openpyxl.utils import get_column_letter

from drafting.progress import Progress, silent


def workbook(
    name: str,
    rows: Sequence[Sequence[str]],
    widths: Sequence[float],
    progress: Progress = silent,
    *,
    head: int = 1,
    left: int = 0,
) -> bytes:
    """A workbook of one sheet. Its first `head` rows and `left` columns stay in sight; `widths` are those of
    the columns, in characters. Every cell is text: one that begins with a sign of a formula is text all the
    same.
    """
    book = Workbook()
    page = book.active
    assert page is not None  # a new workbook has a sheet
    page.title = name
    for row in rows:
        page.append(list(row))
    for cells in page.iter_rows():
        for cell in cells:
            if cell.value:
                cell.data_type = "s"
    for cell in page[1]:
        cell.font = Font(bold=True)
        cell.alignment = Alignment(wrap_text=True, vertical="top")
    for k, width in enumerate(widths, 1):
        page.column_dimensions[get_column_letter(k)].width = width
    page.freeze_panes = f"{get_column_letter(left + 1)}{head + 1}"
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
