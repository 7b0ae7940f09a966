"""Files that come with a building file and that it names: materials, textures, figures."""

from __future__ import annotations

from pathlib import Path, PurePosixPath
from urllib.parse import unquote

from trimesh.resolvers import Resolver

#: Endings of files that building files name: materials of OBJ, figures of glTF, pictures.
BESIDE_FORMATS = (".mtl", ".bin", ".png", ".jpg", ".jpeg")


class FilesBeside(Resolver):
    """The files of one folder by the names that a building file gives them: nothing outside it is read.

    Attributes:
        notes: a sentence of each that is wanted and is not there.
    """

    def __init__(self, folder: Path | None) -> None:
        self.folder = folder
        self.notes: list[str] = []

    def get(self, name: str) -> bytes:
        """The bytes of a file.

        Raises:
            FileNotFoundError: there is none such in the folder.
        """
        found = self._found(name)
        if found is None:
            note = (
                f"“{_last(name)}” is named in the file and did not come with it. Import both in one ZIP file."
            )
            if _is_known(name) and note not in self.notes:
                self.notes.append(note)
            raise FileNotFoundError(name)
        return found.read_bytes()

    def namespaced(self, namespace: str) -> FilesBeside:
        """The same: names are looked for wherever they lie."""
        return self

    def keys(self) -> list[str]:
        """The names of all files."""
        return [] if self.folder is None else sorted(p.name for p in self.folder.iterdir() if p.is_file())

    def write(self, name: str, data: bytes) -> None:
        """Nothing is written."""
        raise PermissionError(name)

    def _found(self, name: str) -> Path | None:
        """A file by the last part of its name, in any case: exporters write paths of their own machine."""
        last = _last(name).casefold()
        there = sorted(self.folder.iterdir()) if self.folder is not None and _is_known(name) else ()
        return next((path for path in there if path.is_file() and path.name.casefold() == last), None)


def _is_known(name: str) -> bool:
    return _last(name).lower().endswith(BESIDE_FORMATS)


def _last(name: str) -> str:
    """The last part of a path of any system, or of a URL."""
    return PurePosixPath(unquote(name.strip()).replace("\\", "/")).name
