"""What a PDF has beside its pages: layers that a reader can switch, page labels, and what it says of itself."""

from __future__ import annotations

import io
import re
import zlib
from collections.abc import Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor

import pikepdf
from pikepdf import Array, Dictionary, Name, String

#: How well contents are compressed: better than this takes twice the time for three hundredths of the size.
LEVEL = 4
_BLOCK = re.compile(rb"^%block (\d+)\r?$", re.MULTILINE)


def block_mark(number: int) -> str:
    """What stands in a page's contents for a block that is laid in later: a comment in a line of its own."""
    return f"\n%block {number}"


def finished(
    made: io.BytesIO,
    blocks: Sequence[bytes],
    numbers: Sequence[str],
    layers: Mapping[str, str],
    title: str,
    author: str,
    date: str,
) -> bytes:
    """The file with its blocks, page labels (ISO 32000-1, 12.4.2) and layers (8.11), compressed.

    Args:
        blocks: what the marks in the pages' contents stand for.
        numbers: the label of each page.
        layers: by the names that the pages' contents have for them.
        date: of plotting, YYYY-MM-DD; blank for none.
    """
    with pikepdf.open(made) as pdf:
        _lay_in(pdf, blocks)
        _add_layers(pdf, layers)
        labels = [entry for k, number in enumerate(numbers) for entry in (k, Dictionary(P=String(number)))]
        pdf.Root.PageLabels = Dictionary(Nums=Array(labels))
        pdf.Root.PageMode = Name.UseOutlines
        # A drawing is printed at its size, and its title stands above it.
        pdf.Root.ViewerPreferences = Dictionary(PrintScaling=Name("/None"), DisplayDocTitle=True)
        _tell(pdf, title, author, date)
        out = io.BytesIO()
        pdf.save(
            out,
            deterministic_id=True,
            compress_streams=True,
            stream_decode_level=pikepdf.StreamDecodeLevel.generalized,
            object_stream_mode=pikepdf.ObjectStreamMode.generate,
        )
        return out.getvalue()


def _lay_in(pdf: pikepdf.Pdf, blocks: Sequence[bytes]) -> None:
    def compressed(contents: bytes) -> bytes:
        return zlib.compress(_BLOCK.sub(lambda mark: blocks[int(mark[1])], contents), LEVEL)

    pages = list(pdf.pages)
    # The compressor lets go of the interpreter: pages are compressed side by side.
    with ThreadPoolExecutor() as pool:
        for page, data in zip(pages, pool.map(compressed, [p.Contents.read_bytes() for p in pages]), strict=True):
            page.Contents.write(data, filter=Name.FlateDecode)


def _add_layers(pdf: pikepdf.Pdf, layers: Mapping[str, str]) -> None:
    if not layers:
        return
    groups = {key: pdf.make_indirect(Dictionary(Type=Name.OCG, Name=String(name))) for key, name in layers.items()}
    by_name = [groups[key] for key in sorted(layers, key=lambda key: layers[key])]
    pdf.Root.OCProperties = Dictionary(
        OCGs=Array(by_name), D=Dictionary(Name=String("Layers"), Order=Array(by_name), ON=Array(by_name))
    )
    named = pdf.make_indirect(Dictionary({f"/{key}": group for key, group in groups.items()}))
    for page in pdf.pages:
        page.Resources.Properties = named


def _tell(pdf: pikepdf.Pdf, title: str, author: str, date: str) -> None:
    for key in ("/CreationDate", "/ModDate", "/Trapped", "/Keywords", "/Subject"):
        if key in pdf.docinfo:
            del pdf.docinfo[key]
    pdf.docinfo["/Producer"] = "Dunefold"
    if date:
        pdf.docinfo["/CreationDate"] = f"D:{date.replace('-', '')}"
    with pdf.open_metadata(set_pikepdf_as_editor=False, update_docinfo=False) as told:
        told["dc:title"] = title
        if author:
            told["dc:creator"] = [author]
        told["xmp:CreatorTool"] = "Dunefold"
        told["pdf:Producer"] = "Dunefold"
        if date:
            told["xmp:CreateDate"] = date
