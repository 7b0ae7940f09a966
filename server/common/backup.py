"""All data in one file: written while people work, verified, and restored on another machine."""

from __future__ import annotations

import contextlib
import io
import json
import shutil
import sqlite3
import tarfile
import tempfile
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from django.conf import settings
from django.db import connection
from django.utils import timezone

from server.common import storage
from server.common.pruning import file_columns

#: Raised whenever the archive's own form changes; older ones are still restored.
FORMAT = 1
MANIFEST, DATABASE = "manifest.json", "database.sqlite3"


class BackupError(Exception):
    """The archive or the data cannot be used; the message is a sentence for people."""


@dataclass
class CheckedData:
    """What was found in data or in an archive: how many files, and sentences about what is wrong."""

    files: int = 0
    size: int = 0
    wrong: list[str] = field(default_factory=list)


def write_backup(target: Path) -> CheckedData:
    """Write one archive of the database and of the files that it names, and read it again to be sure.

    The database is copied by SQLite's own means, so that it is one moment of it while others write. The
    installation's secret key is no part of it.

    Raises:
        BackupError: a file that the database names is missing or damaged; nothing is left at `target`.
        OSError: there is no room.
    """
    part = target.with_name(f"{target.name}.part")
    try:
        with tempfile.TemporaryDirectory(dir=settings.DATA) as folder:
            copy = Path(folder) / DATABASE
            named = copy_database(copy)
            with tarfile.open(part, "w") as archive:
                files = {}
                for digest in named:
                    path = there(digest)
                    archive.add(path, member_name(digest))
                    files[digest] = path.stat().st_size
                archive.add(copy, DATABASE)
                _add_bytes(archive, MANIFEST, manifest_of(copy, files))
        found = read_backup(part)
        if found.wrong:
            raise BackupError(f"{found.wrong[0]} Run check-data.")
        part.replace(target)
        return found
    finally:
        part.unlink(missing_ok=True)


def copy_database(copy: Path) -> list[str]:
    """Copy the database to a file, as it is at one moment while others write, and return the hashes of the
    files that it names."""
    connection.ensure_connection()
    with contextlib.closing(sqlite3.connect(copy)) as made:
        connection.connection.backup(made)
        return sorted(_named_in(made))


def there(digest: str) -> Path:
    """Where a file of the data lies.

    Raises:
        BackupError: it is missing.
    """
    path = storage.path_of(digest)
    if not path.is_file():
        raise BackupError(f"The file {digest} is missing from the data. Run check-data.")
    return path


def manifest_of(database: Path, files: dict[str, int]) -> bytes:
    """What belongs to a backup: the hash of its database, and its files by their hashes with their sizes."""
    given = {
        "format": FORMAT,
        "made": timezone.now().isoformat(),
        "database": digest_of(database),
        "files": files,
    }
    return json.dumps(given).encode()


def read_backup(source: Path, each: Callable[[str, Any], None] = lambda name, stream: None) -> CheckedData:
    """Read an archive through and compare every file with its hash. `each` is handed the name and a stream of
    every file that belongs to it, after that was found right.

    Raises:
        BackupError: it is no backup, is cut off, or is of a newer form.
    """
    found = CheckedData()
    try:
        with tarfile.open(source) as archive:
            manifest = _manifest(archive)
            wanted = {DATABASE: manifest["database"]} | {member_name(d): d for d in manifest["files"]}
            for name, digest in wanted.items():
                stream = archive.extractfile(name)
                if stream is None or storage.digest_of(stream) != digest:
                    found.wrong.append(f"“{name}” is damaged.")
                    continue
                stream.seek(0)
                found.files, found.size = found.files + 1, found.size + archive.getmember(name).size
                each(name, stream)
    except (tarfile.TarError, KeyError, EOFError, ValueError) as error:
        raise BackupError(f"“{source.name}” is no whole backup. Take another one.") from error
    return found


Reader = Callable[[Callable[[str, Any], None]], CheckedData]


def restore(source: Path | Reader, database: Path | None = None) -> CheckedData:
    """Put a backup where this installation's data belong, where there are none yet.

    Args:
        source: an archive, or what reads a backup that is kept otherwise, as `read_backup` does.

    Raises:
        BackupError: there are data already, or the archive is damaged; nothing is changed.
    """
    data = Path(settings.DATA)
    database = database or Path(str(settings.DATABASES["default"]["NAME"]))
    if database.exists() or any(storage.stored_files()):
        raise BackupError(f"There are data in {data} already. Name an empty folder in DUNEFOLD_DATA.")
    with tempfile.TemporaryDirectory(dir=data) as folder:
        place = Path(folder)

        def store(name: str, stream: Any) -> None:
            path = place / name
            path.parent.mkdir(parents=True, exist_ok=True)
            with path.open("wb") as out:
                shutil.copyfileobj(stream, out)

        found = read_backup(source, store) if isinstance(source, Path) else source(store)
        if found.wrong:
            raise BackupError(f"The backup cannot be restored: {found.wrong[0]}")
        with contextlib.closing(sqlite3.connect(place / DATABASE)) as made:
            if made.execute("PRAGMA integrity_check").fetchone() != ("ok",):
                raise BackupError("The backup cannot be restored: its database is damaged.")
        if (place / "files").exists():
            (place / "files").rename(storage.folder())
        (place / DATABASE).rename(database)
    return found


def check_data() -> CheckedData:
    """Compare every file that the database names with its hash, and check the database itself."""
    found = CheckedData()
    with connection.cursor() as cursor:
        for (line,) in cursor.execute("PRAGMA integrity_check").fetchall():
            if line != "ok":
                found.wrong.append(f"The database is damaged: {line}. Restore a backup.")
        for table, *_ in cursor.execute("PRAGMA foreign_key_check").fetchall():
            found.wrong.append(f"A row of {table} refers to one that is not there.")
        connection.ensure_connection()
        named = sorted(_named_in(connection.connection))
    for digest in named:
        path = storage.path_of(digest)
        if not path.is_file():
            found.wrong.append(f"The file {digest} is missing. Restore it from a backup.")
        elif digest_of(path) != digest:
            found.wrong.append(f"The file {digest} is damaged. Restore it from a backup.")
        else:
            found.files, found.size = found.files + 1, found.size + path.stat().st_size
    return found


def _named_in(database: Any) -> Iterator[str]:
    """The hashes of stored files that the rows of a database name."""
    seen: set[str] = set()
    for table, column in file_columns():
        for (value,) in database.execute(f'SELECT DISTINCT "{column}" FROM "{table}"'):
            # What is not a hash is a file that waits to be read; its job says so after a restore.
            if value and len(value) == 64 and value not in seen:
                seen.add(value)
                yield value


def member_name(digest: str) -> str:
    """Where a file lies in a backup."""
    return f"files/{digest[:2]}/{digest}"


def _manifest(archive: tarfile.TarFile) -> dict[str, Any]:
    stream = archive.extractfile(MANIFEST)
    return parse_manifest(stream.read() if stream else b"{}")


def parse_manifest(data: bytes) -> dict[str, Any]:
    """What `manifest_of` wrote.

    Raises:
        ValueError: it is none.
        BackupError: it is of a newer form.
    """
    manifest: dict[str, Any] = json.loads(data)
    if not isinstance(manifest.get("files"), dict) or not all(_is_hash(name) for name in manifest["files"]):
        raise ValueError("no manifest")
    if manifest["format"] > FORMAT:
        raise BackupError("This backup was made by a newer Dunefold. Restore it with that.")
    return manifest


def _is_hash(name: str) -> bool:
    return len(name) == 64 and set(name) <= set("0123456789abcdef")


def digest_of(path: Path) -> str:
    """The hash of a file."""
    with path.open("rb") as stream:
        return storage.digest_of(stream)


def _add_bytes(archive: tarfile.TarFile, name: str, data: bytes) -> None:
    entry = tarfile.TarInfo(name)
    entry.size = len(data)
    archive.addfile(entry, io.BytesIO(data))
