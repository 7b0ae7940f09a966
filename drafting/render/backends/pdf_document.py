"""What a PDF has beside its pages: layers that a reader can switch, page labels, pictures, and what it says
of itself."""

from __future__ import annotations

import io
import zlib
from collections.abc import Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass

import pikepdf
from pikepdf import Array, Dictionary, Name, Stream, String
from PIL import Image

from drafting.render.page import FileInfo

#: How well contents are compressed: better than this takes twice the time for three hundredths of the size.
LEVEL = 4


@dataclass(frozen=True)
class PageContents:
    """One page: its label, its operators, its pictures (PNG or JPEG) and opacities by their names in the
    operators."""

    label: str
    operators: bytes
    images: Mapping[str, bytes]
    opacities: frozenset[float]


def finished(
    made: io.BytesIO, pages: Sequence[PageContents], layers: Mapping[str, str], info: FileInfo, date: str
) -> bytes:
    """A document of blank pages filled, with page labels (ISO 32000-1, 12.4.2) and layers (8.11), compressed.

    Args:
        layers: by the names that the pages' operators have for them.
        date: of plotting, YYYY-MM-DD; blank for none.
    """
    with pikepdf.open(made) as pdf:
        _fill_pages(pdf, pages)
        _add_layers(pdf, layers)
        labels = [entry for k, page in enumerate(pages) for entry in (k, Dictionary(P=String(page.label)))]
        pdf.Root.PageLabels = Dictionary(Nums=Array(labels))
        pdf.Root.PageMode = Name.UseOutlines
        # A drawing is printed at its size, and its title stands above it.
        pdf.Root.ViewerPreferences = Dictionary(PrintScaling=Name("/None"), DisplayDocTitle=True)
        _describe(pdf, info, date)
        out = io.BytesIO()
        pdf.save(
            out,
            deterministic_id=True,
            compress_streams=True,
            stream_decode_level=pikepdf.StreamDecodeLevel.generalized,
            object_stream_mode=pikepdf.ObjectStreamMode.generate,
        )
        return out.getvalue()


def _fill_pages(pdf: pikepdf.Pdf, pages: Sequence[PageContents]) -> None:
    # The compressor lets go of the interpreter: pages are compressed side by side.
    with ThreadPoolExecutor() as pool:
        compressed = pool.map(lambda page: zlib.compress(page.operators, LEVEL), pages)
        for blank, page, data in zip(list(pdf.pages), pages, compressed, strict=True):
            blank.Contents.write(data, filter=Name.FlateDecode)
            if page.images:
                blank.Resources.XObject = Dictionary(
                    {f"/{k}": _picture(pdf, data) for k, data in page.images.items()}
                )
            if page.opacities:
                # Named as the operators name them; see the PDF back end.
                states = {
                    f"/A{round(x * 1000)}": Dictionary(Type=Name.ExtGState, ca=x) for x in page.opacities
                }
                blank.Resources.ExtGState = Dictionary(states)


def _picture(pdf: pikepdf.Pdf, data: bytes) -> Stream:
    """A PNG or JPEG as a picture of the document, with what is clear in it as a mask."""
    opened = Image.open(io.BytesIO(data))
    clear = "A" in opened.getbands() or "transparency" in opened.info
    grey = opened.mode in ("L", "LA", "1")
    picture = _pixels(
        pdf, opened.convert("L" if grey else "RGB"), Name.DeviceGray if grey else Name.DeviceRGB
    )
    if clear:
        picture.SMask = _pixels(pdf, opened.convert("RGBA").getchannel("A"), Name.DeviceGray)
    return picture


def _pixels(pdf: pikepdf.Pdf, pixels: Image.Image, space: Name) -> Stream:
    stream = Stream(pdf, zlib.compress(pixels.tobytes(), LEVEL))
    stream.update(
        Dictionary(
            Type=Name.XObject, Subtype=Name.Image, Width=pixels.width, Height=pixels.height,
            ColorSpace=space, BitsPerComponent=8, Filter=Name.FlateDecode,
        )
    )  # fmt: skip
    return pdf.make_indirect(stream)


def _add_layers(pdf: pikepdf.Pdf, layers: Mapping[str, str]) -> None:
    if not layers:
        return
    groups = {
        key: pdf.make_indirect(Dictionary(Type=Name.OCG, Name=String(name))) for key, name in layers.items()
    }
    by_name = [groups[key] for key in sorted(layers, key=lambda key: layers[key])]
    pdf.Root.OCProperties = Dictionary(
        OCGs=Array(by_name), D=Dictionary(Name=String("Layers"), Order=Array(by_name), ON=Array(by_name))
    )
    named = pdf.make_indirect(Dictionary({f"/{key}": group for key, group in groups.items()}))
    for page in pdf.pages:
        page.Resources.Properties = named


def _describe(pdf: pikepdf.Pdf, info: FileInfo, date: str) -> None:
    for key in ("/CreationDate", "/ModDate", "/Trapped", "/Keywords", "/Subject"):
        if key in pdf.docinfo:
            del pdf.docinfo[key]
    pdf.docinfo["/Producer"] = "Dunefold"
    if date:
        pdf.docinfo["/CreationDate"] = f"D:{date.replace('-', '')}"
    with pdf.open_metadata(set_pikepdf_as_editor=False, update_docinfo=False) as metadata:
        metadata["dc:title"] = info.title
        if info.author:
            metadata["dc:creator"] = [info.author]
        metadata["xmp:CreatorTool"] = "Dunefold"
        metadata["pdf:Producer"] = "Dunefold"
        if date:
            metadata["xmp:CreateDate"] = date
