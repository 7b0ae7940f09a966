"""Which classes of the open building-model standard are no building fabric, and so are never drawn."""

#: Classes (with their subclasses) that have shapes in files but describe no thing that is built.
#: Source: IFC4 (ISO 16739-1), the entity definitions.
EXCLUDED = (
    "IfcSpatialElement",
    "IfcFeatureElementSubtraction",
    "IfcVirtualElement",
    "IfcGrid",
    "IfcAnnotation",
    "IfcPort",
    "IfcStructuralItem",
    "IfcStructuralActivity",
    "IfcAlignment",
    "IfcReferent",
)

#: What they are called in IFC2x3, where the standard grouped them otherwise.
EXCLUDED_2X3 = ("IfcSpatialStructureElement",)
