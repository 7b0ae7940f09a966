/** How a shape looks, and what can be done to it. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { Annotation, ShapeSpec } from "../../../api/client";
import { ChoiceField } from "../../../components/ChoiceField";
import { ColourField } from "../../../components/ColourField";
import { FigureField } from "../../../components/FigureField";
import { Buttons, Group, Rows } from "../../../components/Ledge";
import { More } from "../../../components/More";
import { NameDialog } from "../../../components/NameDialog";
import type { Point } from "../../../canvas/geometry";
import { NO_POINTS, useAnnotating, type PointsFor } from "../../../stores/annotating";
import { notify, notifyError } from "../../../stores/notices";
import type { AnnotationEdits, ShapeEdit } from "./annotationCommands";
import { FILLS, HATCHES, PATTERNS, WIDTHS } from "./pieceChoices";
import type { Of } from "./pieceProps";
import { t } from "../../../words/words";

export type ShapePiece = Annotation & { spec: ShapeSpec };

export function ShapeFields({ piece, edits, onOutline }: Of<ShapeSpec> & Pick<CommandProps, "onOutline">) {
  const { spec } = piece;
  const change = (to: Partial<ShapeSpec>, what: string) => void edits.changeSpec(piece, to, what);
  const area = spec.closed || ["rectangle", "circle", "ellipse"].includes(spec.form);
  const fills = FILLS.some(([colour]) => colour === spec.fill)
    ? FILLS
    : [...FILLS, [spec.fill, t("Another")] as const];
  return (
    <>
      <Group name={t("Line")}>
        <Rows>
          <Box sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}>
            <ChoiceField
              label={t("Width")}
              width={96}
              value={String(spec.width)}
              choices={WIDTHS}
              onChoose={(width) => change({ width: Number(width) }, t("width of a line"))}
            />
            <ColourField
              label={t("Colour")}
              value={spec.colour}
              onChange={(colour) => change({ colour }, t("colour of a line"))}
            />
          </Box>
          <ChoiceField
            label={t("Pattern")}
            width={136}
            value={spec.pattern}
            choices={PATTERNS}
            onChoose={(to) => change({ pattern: to as ShapeSpec["pattern"] }, t("pattern of a line"))}
          />
        </Rows>
      </Group>
      {area ? (
        <Group name={t("Area")} about={t("Area of a shape")}>
          <Rows>
            <ChoiceField
              label={t("Fill")}
              width={150}
              value={spec.fill}
              choices={fills}
              onChoose={(fill) => change({ fill: fill as ShapeSpec["fill"] }, t("fill of a shape"))}
            />
            <ChoiceField
              label={t("Hatch")}
              width={150}
              value={spec.hatch}
              choices={HATCHES}
              onChoose={(to) => change({ hatch: to as ShapeSpec["hatch"] }, t("hatch of a shape"))}
            />
          </Rows>
          <Rows>
            <FigureField
              label={t("Opacity (%)")}
              number
              width={76}
              value={String(spec.opacity)}
              onCommit={(opacity) => change({ opacity: Number(opacity) }, t("opacity of a fill"))}
            />
            {spec.hatch && (
              <FigureField
                label={t("Apart (mm)")}
                number
                width={76}
                value={String(spec.spacing)}
                onCommit={(spacing) => change({ spacing: Number(spacing) }, t("spacing of a hatch"))}
              />
            )}
          </Rows>
        </Group>
      ) : (
        (spec.form === "line" || spec.form === "curve") &&
        spec.points.length > 2 && (
          <Group name={t("Area")} about={t("Area of a shape")}>
            <Buttons>
              <Button variant="outlined" onClick={() => change({ closed: true }, t("close a line"))}>
                {t("Close")}
              </Button>
            </Buttons>
          </Group>
        )
      )}
      <Group name={t("Change")}>
        <Buttons>
          <ShapeCommands pieces={[piece]} edits={edits} onOutline={onOutline} />
        </Buttons>
      </Group>
    </>
  );
}

interface CommandProps {
  pieces: readonly ShapePiece[];
  edits: AnnotationEdits;
  /** Place a view within an outline on the sheet. */
  onOutline?: (points: readonly Point[]) => void;
}

/** The corners of a closed shape on the bare sheet, which a viewport can have; null for another. */
export function outlineOnSheet({ spec, viewport, view }: ShapePiece): Point[] | null {
  if (viewport ?? view) return null;
  const [a, b] = spec.points.map((p) => p.at);
  if (spec.form === "rectangle" && a && b) return [a, [b[0], a[1]], b, [a[0], b[1]]];
  return spec.form === "line" && spec.closed ? spec.points.map((p) => p.at) : null;
}

/** What can be done to one shape, or to several. */
export function ShapeCommands({ pieces, edits, onOutline }: CommandProps) {
  const [symbol, setSymbol] = useState<string | null>(null);
  const outlines = pieces.length === 1 && pieces[0] ? outlineOnSheet(pieces[0]) : null;
  const [offset, setOffset] = useState<string | null>(null);
  const [turn, setTurn] = useState<string | null>(null);
  const run = (how: ShapeEdit) => void edits.editShapes(pieces, how).catch(notifyError);
  const [first] = pieces;
  const measure = (first?.view ?? first?.viewport) ? t("real mm") : t("mm of paper");
  const points = (what: PointsFor["what"]) =>
    useAnnotating.setState({
      ...NO_POINTS,
      tool: "shape",
      pointsFor: { what, of: pieces.map((p) => p.id) },
      viewport: first?.viewport ?? null,
    });
  return (
    <>
      <More
        commands={[
          [t("Offset…"), () => setOffset("")],
          [t("Turn…"), () => setTurn("")],
          [t("Mirror in a line"), () => points("mirror")],
          [t("Repeat"), () => points("array")],
          ...(pieces.length === 1 ? [[t("Break at a point"), () => points("break")] as const] : []),
          ...(pieces.length > 1
            ? [
                [t("Join touching ends"), () => run({ edit: "join" })] as const,
                [t("Trim at the others"), () => points("trim")] as const,
              ]
            : []),
          [t("Make a symbol…"), () => setSymbol("")] as const,
          ...(outlines && onOutline ? [[t("Make it a viewport…"), () => onOutline(outlines)] as const] : []),
          ...(pieces.length === 2
            ? [[t("Let the two lines meet"), () => run({ edit: "extend" })] as const]
            : []),
        ]}
      />
      <NameDialog
        label={t("How far beside, in {measure} (minus: to the other side)", { measure })}
        action={t("Offset")}
        name={offset}
        onName={setOffset}
        onDone={(text) => {
          const by = Number(text.replace(",", "."));
          if (!Number.isFinite(by) || by === 0) return notify(t("Give a length in millimetres."), true);
          setOffset(null);
          run({ edit: "offset", by });
        }}
      />
      <NameDialog
        label={t("Name of the symbol")}
        action={t("Make it")}
        name={symbol}
        onName={setSymbol}
        onDone={(name) => {
          setSymbol(null);
          void edits
            .makeSymbol(pieces, name)
            .then(() => notify(t("“{name}” is in the library.", { name })))
            .catch(notifyError);
        }}
      />
      <NameDialog
        label={t("Degrees, anticlockwise, about its first point")}
        action={t("Turn")}
        name={turn}
        onName={setTurn}
        onDone={(text) => {
          const by = Number(text.replace(",", "."));
          if (!Number.isFinite(by)) return notify(t("Give an angle in degrees."), true);
          setTurn(null);
          run({ edit: "turn", by, at: first?.spec.points[0]?.at });
        }}
      />
    </>
  );
}
