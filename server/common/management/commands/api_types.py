"""The web's types for the API, generated from its schema."""

from __future__ import annotations

import subprocess
import tempfile
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser

WEB = Path(settings.ROOT) / "web"
TYPES = WEB / "src" / "api" / "schema.d.ts"


def generated() -> str:
    """What the types are to be now."""
    with tempfile.TemporaryDirectory() as folder:
        schema, types = Path(folder) / "schema.yml", Path(folder) / "schema.d.ts"
        call_command("spectacular", file=str(schema), validate=True, fail_on_warn=True)
        tool = WEB / "node_modules" / ".bin" / "openapi-typescript"
        subprocess.run([tool, schema, "-o", types], check=True, stdout=subprocess.DEVNULL)
        return types.read_text()


class Command(BaseCommand):
    help = "Write the web's types for the API, or with --check say whether they are current."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--check", action="store_true")

    def handle(self, *args: Any, **options: Any) -> None:
        now = generated()
        if not options["check"]:
            TYPES.write_text(now)
        elif not TYPES.exists() or TYPES.read_text() != now:
            raise CommandError(f"{TYPES.name} is out of date: run manage.py api_types")
