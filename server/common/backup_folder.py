"""A folder of backups: each is the database of a moment, and the files that it names; what several name is
there once. So a backup copies only what is new.

    2031-05-04T020000.json      what belongs to the backup of that moment
    2031-05-04T020000.sqlite3   its database
    files/ab/abcdef…            files, by their hashes
"""

from __future__ import annotations

import logging
import os
import shutil
from collections.abc import Callable
from datetime import datetime
from pathlib import Path
from typing import Any

from django.conf import settings
from django.utils import timezone

from server.common.backup import (
    DATABASE,
    BackupError,
    CheckedData,
    copy_database,
    digest_of,
    manifest_of,
    member_name,
    parse_manifest,
    there,
)

log = logging.getLogger(__name__)

_NAMED = "%Y-%m-%dT%H%M%S"
LOCK = "lock"
#: A lock that is older was left by something that was stopped; seconds.
STALE = 6 * 3600.0


def moments(folder: Path) -> list[str]:
    """The moments of which a folder has backups, the oldest first."""
    return sorted(path.stem for path in folder.glob("*.json") if _moment(path.stem) is not None)


def _moment(name: str) -> datetime | None:
    try:
        return datetime.strptime(name, _NAMED)
    except ValueError:
        return None


def back_up_into(folder: Path, keep: int = 0) -> CheckedData:
    """Add a backup to a folder, verified, and delete all but the newest where that is wanted.

    Args:
        keep: how many stay; 0 for all.

    Raises:
        BackupError: a file is missing or damaged, or another backup is being made; nothing is added.
        OSError: there is no room.
    """
    folder.mkdir(parents=True, exist_ok=True)
    lock = folder / LOCK
    _lock(lock)
    try:
        found = _add(folder)
        if keep:
            _forget(folder, moments(folder)[:-keep])
        return found
    finally:
        lock.unlink(missing_ok=True)


def _lock(lock: Path) -> None:
    if lock.exists() and timezone.now().timestamp() - lock.stat().st_mtime > STALE:
        lock.unlink(missing_ok=True)
    try:
        os.close(os.open(lock, os.O_WRONLY | os.O_CREAT | os.O_EXCL))
    except FileExistsError:
        raise BackupError(f"Another backup is being made in {lock.parent}.") from None


def _add(folder: Path) -> CheckedData:
    name = timezone.localtime().strftime(_NAMED)
    copy = folder / f"{name}.sqlite3.part"
    try:
        files = {}
        for digest in copy_database(copy):
            source, kept = there(digest), folder / member_name(digest)
            if not kept.exists():
                _copy(source, kept, digest)
            files[digest] = source.stat().st_size
        manifest = manifest_of(copy, files)
        _flush(copy)
        copy.replace(folder / f"{name}.sqlite3")
        part = folder / f"{name}.json.part"
        part.write_bytes(manifest)
        _flush(part)
        # What belongs to it is there before it is told.
        part.replace(folder / f"{name}.json")
    finally:
        copy.unlink(missing_ok=True)
    return CheckedData(len(files) + 1, sum(files.values()) + (folder / f"{name}.sqlite3").stat().st_size)


def _copy(source: Path, kept: Path, digest: str) -> None:
    kept.parent.mkdir(parents=True, exist_ok=True)
    part = kept.with_name(f"{kept.name}.part")
    try:
        shutil.copyfile(source, part)
        _flush(part)
        if digest_of(part) != digest:
            raise BackupError(f"The file {digest} is damaged. Run check-data.")
        part.replace(kept)
    finally:
        part.unlink(missing_ok=True)


def _flush(path: Path) -> None:
    with path.open("rb+") as stream:
        os.fsync(stream.fileno())


def _forget(folder: Path, old: list[str]) -> None:
    """Delete backups, and the files that none of the others names."""
    for name in old:
        for ending in ("json", "sqlite3"):
            (folder / f"{name}.{ending}").unlink(missing_ok=True)
    if old:
        needed = {digest for name in moments(folder) for digest in _manifest(folder, name)["files"]}
        for path in (folder / "files").rglob("*"):
            if path.is_file() and path.name not in needed:
                path.unlink()


def _manifest(folder: Path, name: str) -> dict[str, Any]:
    try:
        return parse_manifest((folder / f"{name}.json").read_bytes())
    except (OSError, ValueError) as error:
        raise BackupError(f"The backup {name} in {folder} is not whole. Take another one.") from error


def reader(folder: Path, moment: str = "") -> Callable[[Callable[[str, Any], None]], CheckedData]:
    """What reads a backup of a folder, for `restore`: the newest, or the last one that begins with `moment`,
    such as a day.

    Raises:
        BackupError: there is none.
    """
    names = [name for name in moments(folder) if name.startswith(moment)]
    if not names:
        when = f" of {moment}" if moment else ""
        raise BackupError(f"There is no backup{when} in {folder}.")
    name = names[-1]
    manifest = _manifest(folder, name)

    def read(each: Callable[[str, Any], None]) -> CheckedData:
        found = CheckedData()
        wanted = {DATABASE: (folder / f"{name}.sqlite3", manifest["database"])}
        wanted |= {member_name(d): (folder / member_name(d), d) for d in manifest["files"]}
        for member, (path, digest) in wanted.items():
            if not path.is_file() or digest_of(path) != digest:
                found.wrong.append(f"“{member}” is missing or damaged.")
                continue
            found.files, found.size = found.files + 1, found.size + path.stat().st_size
            with path.open("rb") as stream:
                each(member, stream)
        return found

    return read


def back_up_nightly() -> None:
    """Make the backup of this night, where a folder is named for it and it is not there yet. What goes wrong
    is logged, and tried again later."""
    folder: Path | None = settings.BACKUP_FOLDER
    now = timezone.localtime()
    if folder is None or now.hour < settings.BACKUP_HOUR:
        return
    last = moments(folder)[-1:] if folder.is_dir() else []
    if any(name.startswith(now.strftime("%Y-%m-%d")) for name in last):
        return
    try:
        found = back_up_into(folder, settings.BACKUPS_KEPT)
    except (BackupError, OSError):
        log.exception("the nightly backup failed")
    else:
        log.info("nightly backup: %d files, %.1f MB", found.files, found.size / 1e6)
