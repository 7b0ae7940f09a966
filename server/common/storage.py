"""Files by their content's hash: written whole under a temporary name, flushed, then renamed."""

from __future__ import annotations

import hashlib
import os
import uuid
from collections.abc import Iterable, Iterator
from pathlib import Path
from typing import Any

from django.conf import settings


def folder() -> Path:
    return Path(settings.DATA) / "files"


def path_of(digest: str) -> Path:
    """Where the file of a hash lies."""
    return folder() / digest[:2] / digest


def temporary_folder() -> Path:
    """Where files are made before they are stored."""
    place = folder() / "making"
    place.mkdir(parents=True, exist_ok=True)
    return place


def temporary_path(suffix: str = "") -> Path:
    """A name for a file that is being made; `store` takes it, or it is unlinked."""
    return temporary_folder() / f"{uuid.uuid4().hex}{suffix}"


def write_chunks(chunks: Iterable[bytes], suffix: str = "") -> Path:
    """Write a new temporary file; nothing is left of it if that fails."""
    path = temporary_path(suffix)
    try:
        with path.open("wb") as stream:
            for chunk in chunks:
                stream.write(chunk)
    except BaseException:
        path.unlink(missing_ok=True)
        raise
    return path


def digest_of(stream: Any) -> str:
    """The hash of what is still to be read of a stream of bytes."""
    return hashlib.file_digest(stream, "sha256").hexdigest()


def store(path: Path) -> str:
    """Move a finished file to its place and return its hash."""
    with path.open("rb") as stream:
        name = digest_of(stream)
        os.fsync(stream.fileno())
    final = path_of(name)
    final.parent.mkdir(parents=True, exist_ok=True)
    path.replace(final)
    _flush_folder(final.parent)
    return name


def _flush_folder(place: Path) -> None:
    """A name that was changed outlasts a power loss only when its folder is on the disk too."""
    opened = os.open(place, os.O_RDONLY)
    try:
        os.fsync(opened)
    finally:
        os.close(opened)


def stored_files() -> Iterator[Path]:
    """Every file that is stored or being made."""
    return (path for path in folder().rglob("*") if path.is_file())
