"""Building files that come packed: IFCZIP and other ZIP files, and gzip."""

from __future__ import annotations

import gzip
import tempfile
import zipfile
import zlib
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import IO

from drafting.building.readers.mesh import MESH_FORMATS
from drafting.errors import BuildingFileError

#: Endings of files that can be read, and of those that hold one.
BUILDING_FORMATS = (".ifc", *MESH_FORMATS)
PACKED_FORMATS = (".ifczip", ".zip", ".gz")
#: A packed file may unpack to so many bytes: more than any building file that could be drawn.
UNPACKED_LIMIT = 2 * 1024**3
CHUNK = 1 << 20
#: What unpacking raises for files that are damaged, encrypted or packed in an unknown way.
_DAMAGED = (zipfile.BadZipFile, EOFError, OSError, zlib.error, NotImplementedError, RuntimeError)


@contextmanager
def unpacked(path: Path, name: str) -> Iterator[tuple[Path, str]]:
    """The building file that a file holds, and what people call it; the file itself where it is not packed.
    What was unpacked is gone afterwards.

    Raises:
        BuildingFileError: it holds no building file or more than one, is damaged, or unpacks to too much.
    """
    with path.open("rb") as stream:
        head = stream.read(4)
    if not head.startswith((b"PK\x03\x04", b"\x1f\x8b")):
        yield path, name
        return
    with tempfile.TemporaryDirectory() as folder:
        target = Path(folder) / "model"
        try:
            if head.startswith(b"PK"):
                with zipfile.ZipFile(path) as archive:
                    member = _only_building(archive, name)
                    with archive.open(member) as packed:
                        _copy(packed, target, name)
                    inside = Path(member.filename).name
            else:
                with gzip.open(path) as packed:
                    _copy(packed, target, name)
                inside = name.removesuffix(".gz") if name.endswith(".gz") else f"{name}.ifc"
        except _DAMAGED as error:
            if isinstance(error, OSError) and error.errno is not None:
                raise
            raise BuildingFileError(
                f"“{name}” cannot be unpacked: it is damaged or needs a password. "
                "Save the building file itself."
            ) from error
        yield target, inside


def _only_building(archive: zipfile.ZipFile, name: str) -> zipfile.ZipInfo:
    found = [m for m in archive.infolist() if Path(m.filename).suffix.lower() in BUILDING_FORMATS]
    if len(found) != 1:
        what = "no building file" if not found else f"{len(found)} building files"
        raise BuildingFileError(f"“{name}” holds {what}. Import one {' or '.join(BUILDING_FORMATS)} file.")
    return found[0]


def _copy(packed: IO[bytes] | gzip.GzipFile, target: Path, name: str) -> None:
    size = 0
    with target.open("wb") as stream:
        while chunk := packed.read(CHUNK):
            size += len(chunk)
            if size > UNPACKED_LIMIT:
                raise BuildingFileError(f"“{name}” unpacks to more than 2 GB. Export the building in parts.")
            stream.write(chunk)
