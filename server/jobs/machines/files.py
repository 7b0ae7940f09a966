"""Files on their way between machines, by their content's hash: whoever gets one sees whether it is whole."""

from __future__ import annotations

import hashlib
import shutil
import time
import uuid
from collections.abc import Iterator
from datetime import timedelta
from pathlib import Path

from django.conf import settings
from django.core.files import File
from django.core.files.base import ContentFile
from django.core.files.storage import Storage, storages
from django.utils import timezone

#: What was sent, or used, longer ago than this is not on its way any more.
KEPT = timedelta(days=2)
_PIECE = 1024 * 1024


class Missing(Exception):
    """A file that was to be there is not, or is not whole. The argument is its hash."""


def place() -> Storage:
    """Where all machines find the files."""
    return storages["work"]


def send(path: Path, digest: str, *, again: bool = False) -> None:
    """Have a file where all machines find it.

    Args:
        again: send it although it is there: somebody found it broken.
    """
    with path.open("rb") as stream:
        _send(File(stream), digest, again=again)


def send_text(text: str, *, again: bool = False) -> str:
    """The same for a text; its hash."""
    plain = text.encode()
    digest = hashlib.sha256(plain).hexdigest()
    _send(ContentFile(plain), digest, again=again)
    return digest


def fetch(digest: str) -> Path:
    """The file of a hash on this machine, got from the others where it is not there yet.

    Raises:
        Missing: it is nowhere, or what is there has another hash.
    """
    path = own_folder() / digest
    if not path.exists():
        made = own_folder() / uuid.uuid4().hex
        fetch_to(digest, made)
        made.replace(path)
    # What was used lately is kept.
    path.touch()
    return path


def fetch_to(digest: str, path: Path) -> None:
    """Write the file of a hash to a path.

    Raises:
        Missing: it is nowhere, or what is there has another hash; nothing is at the path then.
    """
    found = hashlib.sha256()
    try:
        with path.open("wb") as made, place().open(_name(digest)) as stream:
            for piece in stream.chunks(_PIECE):
                found.update(piece)
                made.write(piece)
        if found.hexdigest() != digest:
            raise FileNotFoundError
    except FileNotFoundError as error:
        path.unlink(missing_ok=True)
        raise Missing(digest) from error
    except BaseException:
        path.unlink(missing_ok=True)
        raise


def own_folder() -> Path:
    """Where a machine keeps what it works with."""
    folder = Path(settings.DATA) / "for-others"
    folder.mkdir(exist_ok=True)
    return folder


def prune() -> None:
    """Delete what is not on its way any more. What is wanted again is sent again."""
    before = timezone.now() - KEPT
    for name in list(_names()):
        if place().get_modified_time(name) < before:
            place().delete(name)


def prune_own() -> None:
    """Delete what this machine has not used for long, and what a step left that was killed."""
    for path in own_folder().iterdir():
        if time.time() - path.stat().st_mtime > KEPT.total_seconds():
            if path.is_dir():
                shutil.rmtree(path, ignore_errors=True)
            else:
                path.unlink(missing_ok=True)


def _send(content: File[bytes], digest: str, *, again: bool = False) -> None:
    name = _name(digest)
    if place().exists(name):
        if not again:
            return
        place().delete(name)
    place().save(name, content)


def _name(digest: str) -> str:
    return f"{digest[:2]}/{digest}"


def _names() -> Iterator[str]:
    try:
        folders, _ = place().listdir("")
    except FileNotFoundError:  # nothing was sent yet
        return
    for folder in folders:
        yield from (f"{folder}/{name}" for name in place().listdir(folder)[1])
