"""Building files that come packed: IFCZIP and other ZIP files, and gzip."""

from __future__ import annotations

import gzip
import tempfile
import zipfile
import zlib
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path, PurePosixPath
from typing import IO, NamedTuple

from drafting.building.readers.beside import BESIDE_FORMATS
from drafting.building.readers.mesh import MESH_FORMATS
from drafting.errors import BuildingFileError

#: Endings of files that can be read, and of those that hold one.
BUILDING_FORMATS = (".ifc", *MESH_FORMATS)
PACKED_FORMATS = (".ifczip", ".zip", ".gz")
#: A packed file may unpack to so many bytes: more than any building file that could be drawn.
UNPACKED_LIMIT = 2 * 1024**3
CHUNK = 1 << 20
#: So many files that come with the building file are unpacked.
MAX_BESIDE = 500
#: What unpacking raises for files that are damaged, encrypted or packed in an unknown way.
_DAMAGED = (zipfile.BadZipFile, EOFError, OSError, zlib.error, NotImplementedError, RuntimeError)


class Unpacked(NamedTuple):
    """A building file, what people call it, and a folder with the files that came with it, if any did."""

    path: Path
    name: str
    beside: Path | None = None


@contextmanager
def unpacked(path: Path, name: str) -> Iterator[Unpacked]:
    """The building file that a file holds, with what it comes with; the file itself where it is not packed.
    What was unpacked is gone afterwards.

    Raises:
        BuildingFileError: it holds no building file or more than one, is damaged, or unpacks to too much.
    """
    with path.open("rb") as stream:
        head = stream.read(4)
    if not head.startswith((b"PK\x03\x04", b"\x1f\x8b")):
        yield Unpacked(path, name)
        return
    with tempfile.TemporaryDirectory() as folder:
        target, beside = Path(folder) / "model", None
        try:
            if head.startswith(b"PK"):
                with zipfile.ZipFile(path) as archive:
                    member = _only_building(archive, name)
                    left = UNPACKED_LIMIT
                    with archive.open(member) as packed:
                        left -= _copy(packed, target, name, left)
                    beside = Path(folder) / "beside"
                    beside.mkdir()
                    _unpack_beside(archive, beside, name, left)
                    inside = Path(member.filename).name
            else:
                with gzip.open(path) as packed:
                    _copy(packed, target, name, UNPACKED_LIMIT)
                inside = name.removesuffix(".gz") if name.endswith(".gz") else f"{name}.ifc"
        except _DAMAGED as error:
            if isinstance(error, OSError) and error.errno is not None:
                raise
            raise BuildingFileError(
                f"“{name}” cannot be unpacked: it is damaged or needs a password. "
                "Save the building file itself."
            ) from error
        yield Unpacked(target, inside, beside)


def _only_building(archive: zipfile.ZipFile, name: str) -> zipfile.ZipInfo:
    found = [m for m in archive.infolist() if Path(m.filename).suffix.lower() in BUILDING_FORMATS]
    if len(found) != 1:
        what = "no building file" if not found else f"{len(found)} building files"
        raise BuildingFileError(f"“{name}” holds {what}. Import one {' or '.join(BUILDING_FORMATS)} file.")
    return found[0]


def _unpack_beside(archive: zipfile.ZipFile, folder: Path, name: str, left: int) -> None:
    """Unpack what building files name, no more than `left` bytes of it, by the last parts of their names."""
    members = [m for m in archive.infolist() if Path(m.filename).suffix.lower() in BESIDE_FORMATS]
    for member in members[:MAX_BESIDE]:
        target = folder / PurePosixPath(member.filename).name
        if not target.exists():
            with archive.open(member) as packed:
                left -= _copy(packed, target, name, left)


def _copy(packed: IO[bytes] | gzip.GzipFile, target: Path, name: str, most: int) -> int:
    """Unpack to a file, `most` bytes at most, and say how many it has."""
    size = 0
    with target.open("wb") as stream:
        while chunk := packed.read(CHUNK):
            size += len(chunk)
            if size > most:
                raise BuildingFileError(f"“{name}” unpacks to more than 2 GB. Export the building in parts.")
            stream.write(chunk)
    return size
