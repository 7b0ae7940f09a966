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
  ["Left sides", 0, 0],
  ["Centre left to right", 0, 0.5],
  ["Right sides", 0, 1],
  ["Bottoms", 1, 0],
  ["Centre up and down", 1, 0.5],
  ["Tops", 1, 1],
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
      `align ${name.toLowerCase()}`,
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
    write(changed, way ? "spread upward" : "spread across");
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
    <Ledge label="Ledge: several viewports">
      <Group name={`${viewports.length} viewports`}>
        <Box sx={{ width: 150, fontSize: 12.5, color: "text.secondary" }}>
          Drag one to move them all. Shift and a click adds or removes one.
        </Box>
      </Group>
      <Group name="Align">
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
      <Group name="Spread evenly">
        <Rows>
          <Button variant="outlined" sx={{ width: 80 }} disabled={all.length < 3} onClick={() => spread(0)}>
            Across
          </Button>
          <Button variant="outlined" sx={{ width: 80 }} disabled={all.length < 3} onClick={() => spread(1)}>
            Upward
          </Button>
        </Rows>
      </Group>
      <Group name="Line up by building">
        <Tooltip
          title={
            aligned.length
              ? `Line up with ${first?.name} along the axis of the building that they share`
              : "Drawings of one building, one scale and a shared axis can be aligned"
          }
        >
          <span>
            <Button
              variant="outlined"
              disabled={!aligned.length}
              onClick={() => write(aligned, "line up by building")}
            >
              Line up by building
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
              Update
            </Button>
          )}
          <Button
            variant="outlined"
            onClick={() =>
              void edits.copy(
                viewports,
                viewports[0]?.sheet ?? "",
                10,
                `duplicate ${viewports.length} viewports`,
              )
            }
          >
            Duplicate
          </Button>
          <Button variant="outlined" onClick={onToSheets}>
            Copy to sheets…
          </Button>
        </Box>
        <Box sx={{ display: "flex", gap: 0.5 }}>
          <AppearanceMenu viewports={viewports} viewOf={viewOf} edits={edits} onColours={onColours} />
          <Button onClick={() => void edits.remove(viewports)}>Delete</Button>
        </Box>
      </Box>
    </Ledge>
  );
}
