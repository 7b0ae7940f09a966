"""Tables from files: CSV in any usual encoding, and the first sheet of an XLSX."""

from __future__ import annotations

import csv
import io
import zipfile

from openpyxl import load_workbook

from drafting.annotation.tables import MAX_CELL, MAX_COLUMNS, MAX_ROWS
from drafting.errors import SheetError
from drafting.progress import Progress, silent
from drafting.styles.lengths import plain_figure

MAX_BYTES = 5_000_000
#: A workbook is a ZIP file, whose content may be so large when it is unpacked; bytes.
MAX_UNPACKED = 60_000_000
_SEPARATORS = ",;\t|"


def read_table(data: bytes, name: str, progress: Progress = silent) -> list[list[str]]:
    """The cells of a file, row by row, all rows equally long.

    >>> read_table("Room;Paint\\nHall;white\\n".encode(), "a.csv")
    [['Room', 'Paint'], ['Hall', 'white']]

    Raises:
        SheetError: it is too large, is none of CSV and XLSX, or has nothing in it.
    """
    progress("Reading the table", 0.0)
    if len(data) > MAX_BYTES:
        raise SheetError(
            f"“{name}” has {len(data) / 1e6:.0f} MB; a table on a sheet comes from at most "
            f"{MAX_BYTES / 1e6:.0f} MB. Save what is to be shown in a file of its own."
        )
    rows = _workbook(data, name) if data[:2] == b"PK" else _values(data, name)
    while rows and not any(cell.strip() for cell in rows[-1]):
        rows.pop()
    wide = max((len(row) for row in rows), default=0)
    while wide and not any(len(row) >= wide and row[wide - 1].strip() for row in rows):
        wide -= 1
    if not wide:
        raise SheetError(f"“{name}” has no cells with anything in them.")
    if len(rows) > MAX_ROWS or wide > MAX_COLUMNS:
        raise SheetError(
            f"“{name}” has {len(rows)} rows and {wide} columns; a table on a sheet has at most {MAX_ROWS} "
            f"and {MAX_COLUMNS}. Save what is to be shown in a file of its own."
        )
    return [[cell[:MAX_CELL] for cell in (*row, *[""] * wide)][:wide] for row in rows]


def _values(data: bytes, name: str) -> list[list[str]]:
    text = _decoded(data)
    if "\0" in text:
        raise SheetError(f"“{name}” is neither a CSV nor an XLSX file. Save it as one of these.")
    head = text[:4096]
    separator = max(_SEPARATORS, key=head.count)
    try:
        rows = list(csv.reader(io.StringIO(text, newline=""), delimiter=separator))
    except csv.Error as error:
        raise SheetError(f"“{name}” cannot be read as CSV. Save it again.") from error
    return [[_clean(cell) for cell in row] for row in rows]


def _decoded(data: bytes) -> str:
    """The text of a file: as its mark at the beginning says, else UTF-8, else as older programs write it."""
    for mark, encoding in ((b"\xef\xbb\xbf", "utf-8"), (b"\xff\xfe", "utf-16"), (b"\xfe\xff", "utf-16")):
        if data.startswith(mark):
            return data.decode(encoding, "replace").removeprefix("\ufeff")
    try:
        return data.decode("utf-8")
    except UnicodeDecodeError:
        return data.decode("cp1252", "replace")


def _workbook(data: bytes, name: str) -> list[list[str]]:
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            if sum(part.file_size for part in packed.infolist()) > MAX_UNPACKED:
                raise SheetError(f"“{name}” holds more than a table on a sheet can. Save a smaller one.")
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True)
        sheet = book.worksheets[0]
        found = []
        for number, row in enumerate(sheet.iter_rows(values_only=True)):
            if number > MAX_ROWS:
                break
            found.append([_cell(value) for value in row[: MAX_COLUMNS + 1]])
    except SheetError:
        raise
    except (
        Exception
    ) as error:  # of a damaged file, the library and what it stands on raise whatever they meet
        raise SheetError(f"“{name}” cannot be read as a workbook. Save it again as XLSX.") from error
    return found


def _cell(value: object) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "Yes" if value else "No"
    if isinstance(value, float):
        return plain_figure(value, 6)
    return _clean(str(value))


def _clean(text: str) -> str:
    """A cell without what no font has."""
    return "".join(c for c in text if c.isprintable() and not 0xD800 <= ord(c) < 0xE000)
