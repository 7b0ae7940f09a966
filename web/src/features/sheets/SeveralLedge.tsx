/** The ledge for several viewports: how they stand to each other, and what is done with all of them. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import type { View, Viewport } from "../../api/client";
import { boxAround, geometryOf, moved, SIZE, START, type Geometry, type Way } from "../../canvas/geometry";
import { misalignment, shares, type Placed } from "../../canvas/snapping";
import { Group, Ledge, Rows } from "../../components/Ledge";
import { AppearanceMenu } from "./AppearanceMenu";
import type { Edits } from "./sheetCommands";
import { inSentence, t } from "../../words/words";

interface Props {
  viewports: Viewport[];
  viewOf: (id: string) => View | undefined;
  placed: Placed[];
  edits: Edits;
  onBringUpToDate: () => void;
  onToSheets: () => void;
  /** Change the colours of materials in pictures. */
  onColours: () => void;
}

const SIDES: readonly (readonly [name: string, way: Way, share: number])[] = [
  [t("Left sides"), 0, 0],
  [t("Centre left to right"), 0, 0.5],
  [t("Right sides"), 0, 1],
  [t("Bottoms"), 1, 0],
  [t("Centre up and down"), 1, 0.5],
  [t("Tops"), 1, 1],
];

const by = (g: Geometry, way: Way, distance: number) => (way ? moved(g, 0, distance) : moved(g, distance, 0));

export function SeveralLedge({
  viewports,
  viewOf,
  placed,
  edits,
  onBringUpToDate,
  onToSheets,
  onColours,
}: Props) {
  const all = viewports.map((v) => [v.id, geometryOf(v)] as const);
  const free = all.filter(([id]) => !viewports.find((v) => v.id === id)?.pinned);
  const write = (changed: (readonly [string, Geometry])[], what: string) =>
    void edits.reshape(new Map(changed), what);
  const box = boxAround(all.map(([, g]) => g));

  const align = (name: string, way: Way, share: number) =>
    write(
      free.map(
        ([id, g]) =>
          [
            id,
            by(g, way, box[START[way]] + share * box[SIZE[way]] - g[START[way]] - share * g[SIZE[way]]),
          ] as const,
      ),
      t("align {name}", { name: inSentence(name) }),
    );

  /** Equal gaps between the first and the last. */
  const spread = (way: Way) => {
    const order = all.toSorted(([, a], [, b]) => a[START[way]] - b[START[way]]);
    const gap = (box[SIZE[way]] - order.reduce((sum, [, g]) => sum + g[SIZE[way]], 0)) / (order.length - 1);
    let at = box[START[way]];
    const changed = order.map(([id, g]) => {
      const next = by(g, way, at - g[START[way]]);
      at += g[SIZE[way]] + gap;
      return [id, next] as const;
    });
    write(changed, way ? t("spread upward") : t("spread across"));
  };

  /**
   * The others are aligned with the first that was chosen, on each axis of the building that they share with
   * it.
   */
  const [first, ...others] = placed;
  const aligned = others.flatMap((other) => {
    const ways = ([0, 1] as const).filter((way) => first && shares(other, first, way));
    // Two plans share both: they go beside or above each other, whichever they are nearer to.
    const [nearest] = ways.toSorted(
      (a, b) =>
        Math.abs(misalignment(other, first as Placed, a)) - Math.abs(misalignment(other, first as Placed, b)),
    );
    return nearest === undefined
      ? []
      : [[other.id, by(other.geometry, nearest, misalignment(other, first as Placed, nearest))] as const];
  });

  return (
    <Ledge label={t("Ledge: several viewports")}>
      <Group name={t("{count} viewports", { count: viewports.length })}>
        <Box sx={{ width: 150, fontSize: 12.5, color: "text.secondary" }}>
          {t("Drag one to move them all. Shift and a click adds or removes one.")}
        </Box>
      </Group>
      <Group name={t("Align")}>
        <Rows>
          {([0, 1] as const).map((way) => (
            <Box key={way} sx={{ display: "flex", gap: 0.5 }}>
              {SIDES.filter(([, w]) => w === way).map(([name, , share]) => (
                <Button
                  key={name}
                  variant="outlined"
                  sx={{ width: 116, px: 0.5 }}
                  onClick={() => align(name, way, share)}
                >
                  {name}
                </Button>
              ))}
            </Box>
          ))}
        </Rows>
      </Group>
      <Group name={t("Spread evenly")}>
        <Rows>
          <Button variant="outlined" sx={{ width: 80 }} disabled={all.length < 3} onClick={() => spread(0)}>
            {t("Across")}
          </Button>
          <Button variant="outlined" sx={{ width: 80 }} disabled={all.length < 3} onClick={() => spread(1)}>
            {t("Upward")}
          </Button>
        </Rows>
      </Group>
      <Group name={t("Line up by building")}>
        <Tooltip
          title={
            aligned.length
              ? t("Line up with {name} along the axis of the building that they share", { name: first?.name })
              : t("Drawings of one building, one scale and a shared axis can be aligned")
          }
        >
          <span>
            <Button
              variant="outlined"
              disabled={!aligned.length}
              onClick={() => write(aligned, t("line up by building"))}
            >
              {t("Line up by building")}
            </Button>
          </span>
        </Tooltip>
      </Group>
      <Box
        sx={{
          ml: "auto",
          pt: 2.5,
          display: "flex",
          flexDirection: "column",
          gap: 0.5,
          alignItems: "flex-end",
        }}
      >
        <Box sx={{ display: "flex", gap: 0.5 }}>
          {viewports.some((v) => v.state === "out_of_date") && (
            <Button variant="outlined" onClick={onBringUpToDate}>
              {t("Update")}
            </Button>
          )}
          <Button
            variant="outlined"
            onClick={() =>
              void edits.copy(
                viewports,
                viewports[0]?.sheet ?? "",
                10,
                t("duplicate {count} viewports", { count: viewports.length }),
              )
            }
          >
            {t("Duplicate")}
          </Button>
          <Button variant="outlined" onClick={onToSheets}>
            {t("Copy to sheets…")}
          </Button>
        </Box>
        <Box sx={{ display: "flex", gap: 0.5 }}>
          <AppearanceMenu viewports={viewports} viewOf={viewOf} edits={edits} onColours={onColours} />
          <Button onClick={() => void edits.remove(viewports)}>{t("Delete")}</Button>
        </Box>
      </Box>
    </Ledge>
  );
}
