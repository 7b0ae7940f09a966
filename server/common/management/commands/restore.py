"""`dunefold restore FILE` or `FOLDER`: a backup, where there are no data yet."""

import argparse
from pathlib import Path
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError

from server.common.backup import BackupError, restore
from server.common.backup_folder import reader


class Command(BaseCommand):
    help = "Put a backup in place, in a data folder that has nothing in it yet."

    def add_arguments(self, parser: argparse.ArgumentParser) -> None:
        parser.add_argument("file", type=Path, help="an archive, or a folder of backups")
        parser.add_argument("--moment", default="", help="which backup of a folder, such as 2031-05-04")

    def handle(self, *args: Any, file: Path, moment: str, **options: Any) -> None:
        try:
            found = restore(reader(file, moment) if file.is_dir() else file)
        except (BackupError, OSError) as error:
            raise CommandError(str(error)) from error
        # One that an older Dunefold made is brought to the present form.
        call_command("migrate", verbosity=0)
        self.stdout.write(f"{found.files} files, {found.size / 1e6:.1f} MB restored")
