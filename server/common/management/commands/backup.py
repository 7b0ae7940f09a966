"""`dunefold backup FILE` or `FOLDER`: all data in one archive, or what is new in a folder of backups, while
people work."""

import argparse
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from server.common.backup import BackupError, write_backup
from server.common.backup_folder import back_up_into


class Command(BaseCommand):
    help = "Write all data but the secret key to one archive, or add them to a folder of backups, and verify."

    def add_arguments(self, parser: argparse.ArgumentParser) -> None:
        parser.add_argument("file", type=Path, help="an archive; or a folder that is there, for what is new")
        parser.add_argument(
            "--keep", type=int, default=0, help="how many backups of a folder stay; 0 for all"
        )

    def handle(self, *args: Any, file: Path, keep: int, **options: Any) -> None:
        try:
            found = back_up_into(file, keep) if file.is_dir() else write_backup(file)
        except (BackupError, OSError) as error:
            raise CommandError(str(error)) from error
        self.stdout.write(f"{file}: {found.files} files, {found.size / 1e6:.1f} MB, verified")
