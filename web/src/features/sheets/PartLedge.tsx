/** The ledge for the selected part of a template. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import type { DisplayList, Field, Part, Picture, Template } from "../../api/client";
import { endsOf } from "../../canvas/templateParts";
import { ChoiceField } from "../../components/ChoiceField";
import { choicesOf } from "../../components/choices";
import { FigureField } from "../../components/FigureField";
import { Group, Ledge, Rows } from "../../components/Ledge";
import { More } from "../../components/More";
import { ToggleButton } from "../../components/ToggleButton";
import { shownFigure as figure } from "./figures";
import { PictureField } from "./PictureField";
import type { TemplateEdits } from "./templateCommands";
import { KINDS, widths, withNow } from "./templateParts";
import { t } from "../../words/words";
import { said } from "../../words/said";

const HEIGHTS = [1.8, 2.5, 3.5, 5, 7, 10, 14, 20] as const;
const heights = (now: number) =>
  withNow(
    HEIGHTS.map((h) => [String(h), t("{h} mm", { h })] as const),
    String(now),
  );
const COLOURS = [
  ["", t("Ink")],
  ["#5d646b", t("Grey")],
  ["#9c3f24", t("Rust")],
  ["#2d5c66", t("Sea")],
] as const;
const FILLS = [
  ["", t("None")],
  ["#ffffff", t("White")],
  ["#efece4", t("Sand")],
  ["#d9d6cf", t("Grey")],
] as const;
const ACROSS = choicesOf<NonNullable<Part["across"]>>({
  left: t("Left side"),
  middle: t("Middle"),
  right: t("Right side"),
  both: t("Both sides"),
});
const UP = choicesOf<NonNullable<Part["up"]>>({
  bottom: t("Bottom"),
  middle: t("Middle"),
  top: t("Top"),
  both: t("Both ends"),
});
const ALIGN = choicesOf<NonNullable<Part["align"]>>({
  left: t("Left"),
  middle: t("Middle"),
  right: t("Right"),
});

interface Props {
  template: Template;
  display: DisplayList;
  fields: readonly Field[];
  pictures: readonly Picture[];
  edits: TemplateEdits;
  part: Part;
  number: number;
  /** How many others are selected beside it. */
  more: number;
}

export function PartLedge({ template, display, fields, pictures, edits, part, number, more }: Props) {
  const ends = endsOf(part, display);
  const [left, low] = [Math.min(ends[0], ends[2]), Math.min(ends[1], ends[3])];
  const [width, height] = [Math.abs(ends[2] - ends[0]), Math.abs(ends[3] - ends[1])];
  const lay = (x: number, y: number, w: number, h: number, what: string) => {
    const [right, top] = [x + w, y + h];
    const [flipX, flipY] = [ends[0] > ends[2], ends[1] > ends[3]];
    void edits.lay(
      new Map([[number, [flipX ? right : x, flipY ? top : y, flipX ? x : right, flipY ? y : top]]]),
      what,
    );
  };
  const lettered = part.kind === "text" || part.kind === "field";
  return (
    <Ledge label={t("Ledge: part of a template")}>
      <Group name={more ? t("{more} parts", { more: more + 1 }) : KINDS[part.kind]}>
        <Rows>
          {part.kind === "field" ? (
            <ChoiceField
              label={t("Shows")}
              width={168}
              value={part.field ?? ""}
              choices={fields.map((f) => [f.key, said(f.caption)] as const)}
              onChoose={(field) =>
                void edits.set(
                  {
                    field,
                    ...(part.words ? { words: fields.find((f) => f.key === field)?.caption ?? "" } : {}),
                  },
                  t("what a field shows"),
                )
              }
            />
          ) : part.kind === "image" ? (
            <PictureField
              project={template.project ?? ""}
              pictures={pictures}
              value={part.picture ?? ""}
              onChoose={(picture) => void edits.set({ picture }, t("picture of a template"))}
            />
          ) : part.kind === "text" ? (
            <FigureField
              label={t("Text")}
              width={168}
              value={part.words ?? ""}
              onCommit={(words) => void edits.set({ words }, t("words of a template"))}
            />
          ) : (
            <ChoiceField
              label={t("Colour")}
              width={168}
              value={part.colour ?? ""}
              choices={withNow(COLOURS, part.colour ?? "")}
              onChoose={(colour) => void edits.set({ colour }, t("colour of a part"))}
            />
          )}
          {part.kind === "field" ? (
            <FigureField
              label={t("Caption")}
              width={168}
              value={part.words ?? ""}
              onCommit={(words) => void edits.set({ words }, t("caption of a field"))}
            />
          ) : part.kind === "rectangle" ? (
            <ChoiceField
              label={t("Fill")}
              width={168}
              value={part.fill ?? ""}
              choices={withNow(FILLS, part.fill ?? "")}
              onChoose={(fill) => void edits.set({ fill }, t("fill of a rectangle"))}
            />
          ) : lettered ? (
            <ChoiceField
              label={t("Colour")}
              width={168}
              value={part.colour ?? ""}
              choices={withNow(COLOURS, part.colour ?? "")}
              onChoose={(colour) => void edits.set({ colour }, t("colour of a part"))}
            />
          ) : null}
        </Rows>
      </Group>
      <Group name={t("Place on this paper (mm)")}>
        <Rows>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            <FigureField
              label={t("Left")}
              number
              width={64}
              value={figure(left)}
              onCommit={(v) => lay(Number(v), low, width, height, t("move a part"))}
            />
            <FigureField
              label={t("Bottom")}
              number
              width={64}
              value={figure(low)}
              onCommit={(v) => lay(left, Number(v), width, height, t("move a part"))}
            />
          </Box>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            <FigureField
              label={t("Width")}
              number
              width={64}
              value={figure(width)}
              onCommit={(v) => lay(left, low, Number(v), height, t("change a part's size"))}
            />
            <FigureField
              label={t("Height")}
              number
              width={64}
              value={figure(height)}
              onCommit={(v) => lay(left, low, width, Number(v), t("change a part's size"))}
            />
          </Box>
        </Rows>
      </Group>
      <Group name={t("Fixed to")}>
        <Rows>
          <ChoiceField
            label={t("Across")}
            width={104}
            value={part.across ?? "right"}
            choices={ACROSS}
            onChoose={(across) =>
              void edits.anchor({ across: across as Part["across"], up: part.up ?? "bottom" })
            }
          />
          <ChoiceField
            label={t("Up")}
            width={104}
            value={part.up ?? "bottom"}
            choices={UP}
            onChoose={(up) => void edits.anchor({ across: part.across ?? "right", up: up as Part["up"] })}
          />
        </Rows>
      </Group>
      {lettered && (
        <Group name={t("Lettering")}>
          <Rows>
            <Box sx={{ display: "flex", gap: 0.5 }}>
              <ChoiceField
                label={t("Height")}
                width={88}
                value={String(part.size ?? 2.5)}
                choices={heights(part.size ?? 2.5)}
                onChoose={(size) => void edits.set({ size: Number(size) }, t("lettering of a part"))}
              />
              <ChoiceField
                label={t("Shrink down to")}
                width={88}
                value={String(part.min_size ?? 1.8)}
                choices={heights(part.min_size ?? 1.8)}
                onChoose={(least) => void edits.set({ min_size: Number(least) }, t("lettering of a part"))}
              />
            </Box>
            <Box sx={{ display: "flex", gap: 0.5, alignItems: "flex-end" }}>
              <ChoiceField
                label={t("Lines")}
                width={56}
                value={String(part.lines ?? 1)}
                choices={[1, 2, 3, 4, 5, 6].map((n) => [String(n), String(n)] as const)}
                onChoose={(lines) => void edits.set({ lines: Number(lines) }, t("lines of a part"))}
              />
              <ChoiceField
                label={t("Alignment")}
                width={80}
                value={part.align ?? "left"}
                choices={ALIGN}
                onChoose={(align) =>
                  void edits.set({ align: align as Part["align"] }, t("lettering of a part"))
                }
              />
              <ToggleButton
                on={part.bold ?? false}
                name={t("Bold")}
                tip={t("Bold lettering")}
                onToggle={() => void edits.set({ bold: !part.bold }, t("lettering of a part"))}
              />
            </Box>
          </Rows>
        </Group>
      )}
      <Group name={part.kind === "line" ? t("Line") : t("Outline")}>
        <Rows>
          <ChoiceField
            label={t("Width")}
            width={96}
            value={String(part.width ?? 0)}
            choices={widths(part.width ?? 0, part.kind === "line" ? t("As usual") : t("None"))}
            onChoose={(w) => void edits.set({ width: Number(w) }, t("line of a part"))}
          />
        </Rows>
      </Group>
      <Box
        sx={{ ml: "auto", pt: 2.5, display: "flex", flexDirection: "column", gap: 1, alignItems: "flex-end" }}
      >
        <Button variant="contained" onClick={edits.leave}>
          {t("Done")}
        </Button>
        <Box sx={{ display: "flex", gap: 0.5 }}>
          <More
            commands={[
              [t("Duplicate (Ctrl + D)"), edits.duplicate],
              [t("To the front (Home)"), () => edits.stack(true)],
              [t("To the back (End)"), () => edits.stack(false)],
            ]}
          />
          <Tooltip title={t("Delete it from the template (Delete)")}>
            <Button onClick={edits.remove} sx={{ minWidth: 0, px: 1 }}>
              {t("Delete")}
            </Button>
          </Tooltip>
        </Box>
      </Box>
    </Ledge>
  );
}
