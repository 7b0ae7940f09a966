"""The web's types for the API, generated from its schema.

python -m server.config.web_types [--check]
"""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
from pathlib import Path

WEB = Path(__file__).resolve().parents[2] / "web"
TYPES = WEB / "src" / "api" / "schema.d.ts"


def generated() -> str:
    """What the types are to be now."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.config.settings")
    import django
    from django.core.management import call_command

    django.setup()
    with tempfile.TemporaryDirectory() as folder:
        schema, types = Path(folder) / "schema.yml", Path(folder) / "schema.d.ts"
        call_command("spectacular", file=str(schema), validate=True, fail_on_warn=True)
        tool = WEB / "node_modules" / ".bin" / "openapi-typescript"
        subprocess.run([tool, schema, "-o", types], check=True, stdout=subprocess.DEVNULL)
        return types.read_text()


def main() -> int:
    now = generated()
    if "--check" in sys.argv:
        if not TYPES.exists() or TYPES.read_text() != now:
            print(f"{TYPES.name} is out of date: run python -m server.config.web_types", file=sys.stderr)
            return 1
        return 0
    TYPES.write_text(now)
    return 0


if __name__ == "__main__":
    sys.exit(main())
