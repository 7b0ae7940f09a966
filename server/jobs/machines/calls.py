"""A call that another machine can make: its arguments with every path in them replaced by what lies there.

What is sent is loaded without question, as whatever stands in the queue is: its files are known by hashes
that the queue carries, and who can write to the queue can run anything on every machine of it.
"""

from __future__ import annotations

import io
import os
import pickle
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from pathlib import Path, PurePath
from typing import Any

from pydantic import BaseModel

from server.common import storage


class SentPath(BaseModel):
    """What a path of a call is: a file, a folder, or what is only to be made there.

    Attributes:
        name: the last part of the path, whose ending may say what it holds.
        files: the hashes of what lies there, by name within the folder; a file's own is under "".
    """

    name: str
    folder: bool = False
    files: dict[str, str] = {}


class Call(BaseModel):
    """A function of the core's tasks as "module:name", and its arguments, as they are sent."""

    function: str
    places: list[SentPath]
    arguments: bytes
    time_limit: float
    stall_limit: float

    model_config = {"ser_json_bytes": "base64", "val_json_bytes": "base64"}


class Result(BaseModel):
    """What a call came to: its value, and what it made, by number of the place and name within it."""

    value: bytes
    made: dict[int, dict[str, str]]

    model_config = {"ser_json_bytes": "base64", "val_json_bytes": "base64"}


@dataclass(frozen=True)
class Packed:
    """A call with the paths that its places stand for, and the files that lie there, by their hashes."""

    call: Call
    paths: list[Path]
    files: Mapping[str, Path]


def pack(function: str, arguments: tuple[Any, ...], time_limit: float, stall_limit: float) -> Packed:
    """A call as it is sent."""
    paths: list[Path] = []
    files: dict[str, Path] = {}

    def number_of(path: Path) -> int:
        if path not in paths:
            paths.append(path)
        return paths.index(path)

    plain = _pickled(arguments, number_of)
    places = [_place(path, files) for path in paths]
    call = Call(
        function=function, places=places, arguments=plain, time_limit=time_limit, stall_limit=stall_limit
    )
    return Packed(call, paths, files)


def unpack(call: Call, folder: Path, fetch: Callable[[str], Path]) -> tuple[tuple[Any, ...], list[Path]]:
    """The arguments of a call on this machine, and the paths in them.

    Args:
        folder: an empty one, in which its places are laid out; on the disk of what `fetch` gives.
    """
    paths = []
    for number, place in enumerate(call.places):
        path = folder / str(number) / place.name
        (path if place.folder else path.parent).mkdir(parents=True)
        for name, digest in place.files.items():
            inside = _within(path, name)
            inside.parent.mkdir(parents=True, exist_ok=True)
            # A name of its own for the same content: nothing is copied, and what it lies under may go.
            os.link(fetch(digest), inside)
        paths.append(path)
    arguments: tuple[Any, ...] = _loaded(call.arguments, paths)
    return arguments, paths


def pack_result(call: Call, value: Any, paths: list[Path]) -> tuple[Result, dict[str, Path]]:
    """What a call has come to, and the files that it made, by their hashes."""

    def refuse(path: Path) -> int:
        raise TypeError(f"What a step gives back names a path: {path}")

    made: dict[int, dict[str, str]] = {}
    files: dict[str, Path] = {}
    for number, (place, path) in enumerate(zip(call.places, paths, strict=True)):
        found = _place(path, files) if path.exists() else SentPath(name=place.name)
        new = {name: digest for name, digest in found.files.items() if place.files.get(name) != digest}
        if new:
            made[number] = new
    return Result(value=_pickled(value, refuse), made=made), files


def unpack_result(given: Result, paths: list[Path], fetch_to: Callable[[str, Path], None]) -> Any:
    """Lay out what a call made, and give its value.

    Args:
        paths: those of `Packed`.
    """
    for number, made in given.made.items():
        for name, digest in made.items():
            path = _within(paths[number], name)
            path.parent.mkdir(parents=True, exist_ok=True)
            fetch_to(digest, path)
    return _loaded(given.value, [])


def _within(path: Path, name: str) -> Path:
    """A file within a folder, or the path itself where it has no name of its own."""
    return path / name if name else path


def _place(path: Path, files: dict[str, Path]) -> SentPath:
    if path.is_dir():
        inside = sorted(each for each in path.rglob("*") if each.is_file())
        held = {str(each.relative_to(path)): each for each in inside}
        return SentPath(
            name=path.name, folder=True, files={name: _hashed(each, files) for name, each in held.items()}
        )
    return SentPath(name=path.name, files={"": _hashed(path, files)} if path.exists() else {})


def _hashed(path: Path, files: dict[str, Path]) -> str:
    if path == storage.path_of(path.name):
        digest = path.name
    else:
        with path.open("rb") as stream:
            digest = storage.digest_of(stream)
    files[digest] = path
    return digest


def _pickled(value: Any, number_of: Callable[[Path], int]) -> bytes:
    class Pickler(pickle.Pickler):
        def persistent_id(self, thing: Any) -> int | None:
            return number_of(Path(thing)) if isinstance(thing, PurePath) else None

    stream = io.BytesIO()
    Pickler(stream, protocol=5).dump(value)
    return stream.getvalue()


def _loaded(plain: bytes, paths: list[Path]) -> Any:
    class Unpickler(pickle.Unpickler):
        def persistent_load(self, number: Any) -> Path:
            return paths[int(number)]

    return Unpickler(io.BytesIO(plain)).load()
