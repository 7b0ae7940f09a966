"""`dunefold backup FILE`: all data in one archive, while people work."""

import argparse
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from server.common.backup import BackupError, write_backup


class Command(BaseCommand):
    help = "Write all data but the secret key to one archive, and verify it."

    def add_arguments(self, parser: argparse.ArgumentParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, file: Path, **options: Any) -> None:
        try:
            found = write_backup(file)
        except (BackupError, OSError) as error:
            raise CommandError(str(error)) from error
        self.stdout.write(f"{file}: {found.files} files, {found.size / 1e6:.1f} MB, verified")
