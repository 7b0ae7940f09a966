"""Names of issued files, by a pattern that each recipient has."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping

from drafting.errors import SheetError
from drafting.plotting.files import file_name

#: What a pattern may name between braces: fields of the sheet.
TOKENS = (
    "number", "revision", "title", "supplementary_title", "project", "project_number", "purpose", "status",
    "date", "paper",
)  # fmt: skip
DEFAULT_PATTERN = "{number}_{revision}_{title}"
_TOKEN = re.compile(r"\{([^{}]*)\}")
_FORBIDDEN = set('/\\:*?"<>|')


def tokens_of(pattern: str) -> set[str]:
    """What a pattern names between braces.

    >>> sorted(tokens_of("{number}_{revision}"))
    ['number', 'revision']
    """
    return set(_TOKEN.findall(pattern))


def check_pattern(pattern: str) -> None:
    """Refuse a pattern that names no file.

    Raises:
        SheetError: it names a folder, something that no sheet says, or nothing of a sheet at all.
    """
    used = tokens_of(pattern)
    for name in sorted(used):
        if name not in TOKENS:
            raise SheetError(
                f"“{{{name}}}” is nothing that a file can be named after. There are "
                f"{', '.join('{' + token + '}' for token in TOKENS)}."
            )
    plain = _TOKEN.sub("", pattern)
    if _FORBIDDEN & set(plain) or ".." in plain or plain.startswith("."):
        raise SheetError(f'“{pattern}” would be a path. A name of a file has none of / \\ : * ? " < > |.')
    if "{" in plain or "}" in plain:
        raise SheetError(f"A brace of “{pattern}” has no partner. Write such as {DEFAULT_PATTERN}.")
    if not used:
        raise SheetError(f"“{pattern}” names every file alike. Write such as {DEFAULT_PATTERN}.")


def named(pattern: str, values: Mapping[str, str]) -> str:
    """The name of a file without its ending; what a sheet does not say leaves no gap.

    >>> named("{number}_{revision}_{title}", {"number": "A-01", "title": "Plan"})
    'A-01_Plan'
    """
    filled = _TOKEN.sub(lambda token: values.get(token[1], "").strip(), pattern)
    return file_name(re.sub(r"([_ -])[_ -]*(?=\1)", "", filled).strip("_- "))


def names_for(pattern: str, sheets: Iterable[Mapping[str, str]]) -> list[str]:
    """The names of the files of sheets, given the fields of each.

    Raises:
        SheetError: two would be equal, or one would be empty; it names the sheets.
    """
    check_pattern(pattern)
    first: dict[str, str] = {}
    names = []
    for values in sheets:
        name, number = named(pattern, values), values.get("number", "")
        if not name:
            raise SheetError(f"The file of {number} would have no name by “{pattern}”. Name more in it.")
        # Some systems do not tell large letters from small ones.
        other = first.setdefault(name.casefold(), number)
        if other != number or name in names:
            raise SheetError(
                f"The files of {other} and {number} would both be called “{name}” by “{pattern}”. "
                "Put {number} in it."
            )
        names.append(name)
    return names
