"""What a PDF has beside its pages: layers that a reader can switch, page labels, and what it says of itself."""

from __future__ import annotations

import io
from collections.abc import Mapping, Sequence

import pikepdf
from pikepdf import Array, Dictionary, Name, String


def finished(
    made: io.BytesIO, numbers: Sequence[str], layers: Mapping[str, str], title: str, author: str, date: str
) -> bytes:
    """The file with page labels (ISO 32000-1, 12.4.2) and layers (8.11), compressed.

    Args:
        numbers: the label of each page.
        layers: by the names that the pages' contents have for them.
        date: of plotting, YYYY-MM-DD; blank for none.
    """
    with pikepdf.open(made) as pdf:
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
