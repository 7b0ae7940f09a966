"""Files by their content's hash: written whole under a temporary name, flushed, then renamed."""

from __future__ import annotations

import hashlib
import os
import uuid
from collections.abc import Iterable
from pathlib import Path

from django.conf import settings


def folder() -> Path:
    return Path(settings.DATA) / "files"


def path_of(digest: str) -> Path:
    """Where the file of a hash lies."""
    return folder() / digest[:2] / digest


def workplace(suffix: str = "") -> Path:
    """A name for a file that is being made; `keep` takes it in, or it is unlinked."""
    place = folder() / "making"
    place.mkdir(parents=True, exist_ok=True)
    return place / f"{uuid.uuid4().hex}{suffix}"


def write_chunks(chunks: Iterable[bytes], suffix: str = "") -> Path:
    """Write a new file at a workplace; nothing is left of it if that fails."""
    path = workplace(suffix)
    try:
        with path.open("wb") as stream:
            for chunk in chunks:
                stream.write(chunk)
    except BaseException:
        path.unlink(missing_ok=True)
        raise
    return path


def keep(path: Path) -> str:
    """Take a finished file in and return its hash."""
    digest = hashlib.sha256()
    with path.open("rb") as stream:
        while chunk := stream.read(1 << 20):
            digest.update(chunk)
        os.fsync(stream.fileno())
    name = digest.hexdigest()
    final = path_of(name)
    final.parent.mkdir(parents=True, exist_ok=True)
    path.replace(final)
    return name
