"""What is read of a request's body."""

from __future__ import annotations

from typing import Any

from rest_framework.exceptions import ParseError
from rest_framework.parsers import JSONParser


class PlainJSONParser(JSONParser):
    """JSON that can be stored and sent again: not nested without end, and with whole letters.

    Raises:
        ParseError: it is no JSON, is nested too deep, or holds half a letter (a lone surrogate).
    """

    def parse(self, stream: Any, media_type: Any = None, parser_context: Any = None) -> Any:
        try:
            parsed = super().parse(stream, media_type, parser_context)
            _check_letters(parsed)
        except RecursionError:
            raise ParseError("This is nested too deep.") from None
        except UnicodeEncodeError:
            raise ParseError("This text contains half of a character. Type it again.") from None
        return parsed


def _check_letters(value: Any) -> None:
    if isinstance(value, str):
        value.encode()
    elif isinstance(value, dict):
        for key, part in value.items():
            _check_letters(key)
            _check_letters(part)
    elif isinstance(value, list):
        for part in value:
            _check_letters(part)
