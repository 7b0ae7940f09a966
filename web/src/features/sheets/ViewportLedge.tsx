/**
 * The ledge for a viewport: which view, its scale, its frame, what it shows, its state, and what can be done
 * with it.
 */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useState } from "react";
import type { Job, ModelVersion, Rung, Shown, View, Viewport } from "../../api/client";
import { isActive } from "../../api/queries";
import {
  cropped,
  filling,
  fittedTo,
  geometryOf,
  moved,
  shaped,
  type Extents,
  type Geometry,
} from "../../canvas/geometry";
import { ChoiceField } from "../../components/ChoiceField";
import { ComboField } from "../../components/ComboField";
import { FigureField } from "../../components/FigureField";
import { Buttons, Group, Ledge, Rows } from "../../components/Ledge";
import { More } from "../../components/More";
import { leftOut, ShownMenu, type ShownKey } from "../../components/ShownMenu";
import { StateMark } from "../../components/StateMark";
import { ToggleButton } from "../../components/ToggleButton";
import type { Edits } from "./sheetCommands";
import { PensMenu, pensChanged } from "./PensMenu";
import { select, useSelection } from "../../stores/selection";
import { useGesture } from "../../stores/gesture";

interface Props {
  viewport: Viewport;
  view: View | undefined;
  views: View[];
  version: ModelVersion | undefined;
  ladder: Rung[];
  job: Job | undefined;
  edits: Edits;
  /** Key and name of the pen tables that there are. */
  penTables: readonly (readonly [key: string, name: string])[];
  /** The element that was moved to the middle, to be left out if that is wanted. */
  element: string | null;
  onBringUpToDate: () => void;
  onToSheets: () => void;
}

const LADDERS = { custom: "Custom", metric: "Metric", feet: "Feet and inches" } as const;
const CORNERS = [
  ["0 1", "Upper left"],
  ["1 1", "Upper right"],
  ["0 0", "Lower left"],
  ["1 0", "Lower right"],
  ["0.5 0.5", "Middle"],
] as const;
const shownFigure = (value: number) => String(Math.round(value * 100) / 100);

export function ViewportLedge(props: Props) {
  const { viewport, view, views, version, ladder, job, edits, onBringUpToDate, onToSheets } = props;
  const draft = useGesture((s) => s.draft?.get(viewport.id));
  const now: Geometry = draft ?? geometryOf(viewport);
  const drawing = job && isActive(job);
  const perspective = view?.spec.kind === "perspective";
  const change = (to: Parameters<Edits["change"]>[1], what: string) =>
    void edits.change([viewport], to, what);

  return (
    <Ledge label="Ledge: viewport">
      <Group name="View">
        <Rows>
          <ChoiceField
            label="Which is seen"
            width={146}
            value={viewport.view}
            choices={views
              .filter((v) => v.linework || v.id === viewport.view)
              .map((v) => [v.id, v.name] as const)}
            onChoose={(id) => {
              const next = views.find((v) => v.id === id);
              change(
                {
                  view: id,
                  shown: NO_CHOICE,
                  linework: next?.linework,
                  extents: next?.extents,
                  axes: next?.axes,
                  ...middleOf(next),
                },
                `show ${next?.name}`,
              );
            }}
          />
          <Box
            sx={{ display: "flex", alignItems: "center", minHeight: 30, mt: "15px", gap: 0.5, width: 146 }}
          >
            {drawing ? (
              <Box role="status" sx={{ fontSize: 11.5, color: "text.secondary" }}>
                being drawn: {job.stage || "waiting"}
              </Box>
            ) : (
              <StateMark state={viewport.state ?? "undrawn"} />
            )}
            {viewport.state === "out_of_date" && !drawing && (
              <Button onClick={onBringUpToDate} sx={{ minHeight: 24, px: 0.5, minWidth: 0 }}>
                Update
              </Button>
            )}
          </Box>
        </Rows>
      </Group>
      <Group name="Scale">
        <Rows>
          {perspective ? (
            <Box sx={{ width: 106, fontSize: 12.5, pt: 2, color: "text.secondary" }}>Not to scale</Box>
          ) : (
            <ComboField
              label="True scale"
              width={98}
              value={viewport.scale}
              choices={ladder.map((r) => ({ value: r.scale, group: LADDERS[r.ladder] }))}
              onChoose={(scale) => {
                const rung = ladder.find((r) => r.scale === scale);
                change({ scale, ...(rung ? { ratio: rung.ratio } : {}) }, `scale ${scale}`);
              }}
            />
          )}
          <FigureField
            label="Turn"
            unit="°"
            number
            width={98}
            value={shownFigure(now.turn)}
            onCommit={(value) => change({ turn: Number(value) }, "turn what is seen")}
          />
        </Rows>
      </Group>
      <Frame viewport={viewport} now={now} perspective={perspective} edits={edits} />
      <WhatIsSeen
        viewport={viewport}
        view={view}
        version={version}
        penTables={props.penTables}
        edits={edits}
      />
      <Contents {...props} now={now} />
      <Group name="Title, marks">
        <Rows>
          <ChoiceField
            label="Title"
            width={136}
            value={viewport.title_style ?? "plain"}
            choices={TITLES}
            onChoose={(title_style) =>
              change({ title_style: title_style as Viewport["title_style"] }, "drawing title")
            }
          />
          <Buttons>
            <ToggleButton
              on={viewport.marks ?? true}
              name="Marks"
              tip="Where sections, elevations and details lie in it"
              onToggle={() => change({ marks: !(viewport.marks ?? true) }, "marks shown or not")}
            />
            <ToggleButton
              on={viewport.levels ?? true}
              name="Levels"
              tip="The storeys' levels, in what stands upright"
              onToggle={() => change({ levels: !(viewport.levels ?? true) }, "levels shown or not")}
            />
            <ToggleButton
              on={viewport.grid ?? true}
              name="Grid"
              tip="The lines of the building's grid, in plans"
              onToggle={() => change({ grid: !(viewport.grid ?? true) }, "grid lines shown or not")}
            />
          </Buttons>
        </Rows>
      </Group>
      <Group name="On the sheet">
        <Rows>
          <Buttons>
            <ToggleButton
              on={viewport.pinned}
              name="Pin"
              tip="Keep frame and contents where they are (I)"
              onToggle={() =>
                change({ pinned: !viewport.pinned }, viewport.pinned ? "unpin a viewport" : "pin a viewport")
              }
            />
            <ToggleButton
              on={viewport.framed}
              name="Frame"
              tip="The outline is plotted too"
              onToggle={() => change({ framed: !viewport.framed }, "plot the frame or not")}
            />
            <ToggleButton
              on={viewport.opaque}
              name="Cover"
              tip="Hide what lies under it"
              onToggle={() => change({ opaque: !viewport.opaque }, "cover what lies below or not")}
            />
          </Buttons>
          <Buttons>
            <More
              commands={[
                [
                  "Duplicate (Ctrl + D)",
                  () => void edits.copy([viewport], viewport.sheet, 10, "duplicate a viewport"),
                ],
                ["To the same spot of other sheets…", onToSheets],
                ["To the front (Home)", () => edits.stack([viewport], true)],
                ["To the back (End)", () => edits.stack([viewport], false)],
              ]}
            />
            <Tooltip title="Delete this viewport; the view stays (Delete)">
              <Button sx={SLIM} onClick={() => void edits.remove([viewport])}>
                Delete
              </Button>
            </Tooltip>
          </Buttons>
        </Rows>
      </Group>
    </Ledge>
  );
}

/** What a viewport shows where that is what its view shows. */
const NO_CHOICE = {} as Viewport["shown"];
const TITLES = [
  ["plain", "Plain"],
  ["bar", "Scale bar"],
  ["north", "Bar, north"],
  ["none", "None"],
] as const;
const SLIM = { minWidth: 0, px: 1 };

/** Another view has its own middle, and it is looked at upright. */
function middleOf(view: View | undefined): { centre_u?: number; centre_v?: number; turn: number } {
  if (!view?.extents) return { turn: 0 };
  const [u0 = 0, v0 = 0, u1 = 0, v1 = 0] = view.extents;
  return { centre_u: (u0 + u1) / 2, centre_v: (v0 + v1) / 2, turn: 0 };
}

/** Place and size, measured from one corner; what is typed moves the frame, and crops as dragging does. */
function Frame({
  viewport,
  now,
  perspective,
  edits,
}: {
  viewport: Viewport;
  now: Geometry;
  perspective: boolean;
  edits: Edits;
}) {
  const [corner, setCorner] = useState("0 0");
  const [fx = 0, fy = 0] = corner.split(" ").map(Number);
  const set = (geometry: Geometry, what: string) => {
    const extents = viewport.extents as unknown as Extents | null;
    void edits.reshape(
      new Map([[viewport.id, perspective && extents ? filling(geometry, extents) : geometry]]),
      what,
    );
  };
  const size = (axis: "width" | "height", value: number) => {
    const by = value - now[axis];
    const share = axis === "width" ? fx : fy;
    const [low, high] = axis === "width" ? (["west", "east"] as const) : (["south", "north"] as const);
    set(
      cropped(now, {
        ...(share > 0 ? { [low]: -by * share } : {}),
        ...(share < 1 ? { [high]: by * (1 - share) } : {}),
      }),
      `${axis} of a viewport`,
    );
  };
  return (
    <Group name="Frame on paper">
      <Rows>
        <Box sx={{ display: "flex", gap: 0.5 }}>
          <FigureField
            label={fx === 1 ? "Right" : fx === 0 ? "Left" : "Middle x"}
            unit="mm"
            number
            width={68}
            value={shownFigure(now.x + fx * now.width)}
            onCommit={(v) => set(moved(now, Number(v) - now.x - fx * now.width, 0), "move a viewport")}
          />
          <FigureField
            label={fy === 1 ? "Top" : fy === 0 ? "Bottom" : "Middle y"}
            unit="mm"
            number
            width={80}
            value={shownFigure(now.y + fy * now.height)}
            onCommit={(v) => set(moved(now, 0, Number(v) - now.y - fy * now.height), "move a viewport")}
          />
          <ChoiceField
            label="Measured from"
            width={101}
            value={corner}
            choices={CORNERS}
            onChoose={setCorner}
          />
        </Box>
        <Box sx={{ display: "flex", gap: 0.5 }}>
          <FigureField
            label="Width"
            unit="mm"
            number
            width={68}
            value={shownFigure(now.width)}
            onCommit={(v) => size("width", Number(v))}
          />
          <FigureField
            label="Height"
            unit="mm"
            number
            width={80}
            value={shownFigure(now.height)}
            onCommit={(v) => size("height", Number(v))}
          />
          <ChoiceField
            label="Shape"
            width={101}
            value={viewport.shape}
            choices={[
              ["rectangle", "Rectangle"],
              ["circle", "Circle"],
              ["polygon", "Polygon"],
              ["draw", "Draw it…"],
            ]}
            onChoose={(shape) => {
              if (shape === "draw") useGesture.setState({ outline: { of: viewport.id, points: [] } });
              else set(shaped(now, shape as Geometry["shape"]), `make a viewport a ${shape}`);
            }}
          />
        </Box>
      </Rows>
    </Group>
  );
}

/** What it shows and with which pens, where that differs from its view. */
function WhatIsSeen({
  viewport,
  view,
  version,
  penTables,
  edits,
}: Pick<Props, "viewport" | "view" | "version" | "penTables" | "edits">) {
  const ofView: Shown = view?.spec.shown ?? {};
  const shown: Shown = { ...ofView, ...viewport.shown };
  const differs =
    leftOut(shown) !== leftOut(ofView) ||
    Object.keys(viewport.shown).length > 0 ||
    pensChanged(viewport.pens) > 0 ||
    viewport.pen_table !== null;
  const show = (key: ShownKey, names: string[]) => {
    const { [key]: _, ...rest } = viewport.shown as Shown;
    const same = JSON.stringify([...(ofView[key] ?? [])].sort()) === JSON.stringify(names);
    void edits.change(
      [viewport],
      { shown: (same ? rest : { ...rest, [key]: names }) as Viewport["shown"] },
      "what a viewport shows",
    );
  };
  return (
    <Group name={differs ? "Shown, not as in the view" : "Shown"}>
      <Rows>
        <Buttons>
          <ShownMenu shown={shown} version={version} onChange={show} />
          {differs && (
            <Tooltip title="Show what the view shows, with the standard pens">
              <Button
                sx={SLIM}
                onClick={() =>
                  void edits.change(
                    [viewport],
                    { shown: NO_CHOICE, pens: { roles: {}, layers: {} }, pen_table: null },
                    "show a viewport as its view",
                  )
                }
              >
                As in view
              </Button>
            </Tooltip>
          )}
        </Buttons>
        <Buttons>
          <PensMenu
            pens={viewport.pens}
            table={viewport.pen_table}
            tables={penTables}
            onTable={(pen_table) => void edits.change([viewport], { pen_table }, "pen table of a viewport")}
            layers={Object.keys(version?.facts.layers ?? {})}
            onChange={(pens) => void edits.change([viewport], { pens }, "pens of a viewport")}
          />
        </Buttons>
      </Rows>
    </Group>
  );
}

function Contents({ viewport, view, version, edits, element, now }: Props & { now: Geometry }) {
  const moving = useSelection((s) => s.movingContents);
  const extents = viewport.extents as unknown as Extents | null;
  const storeys = viewport.axes && (viewport.axes.up[2] ?? 0) > 0.999 ? (version?.facts.storeys ?? []) : [];
  const fit = () =>
    extents &&
    void edits.reshape(
      new Map([
        [viewport.id, view?.spec.kind === "perspective" ? filling(now, extents) : fittedTo(now, extents)],
      ]),
      "fit the crop to the drawing",
    );
  const leaveOut = () => {
    const without = [
      ...new Set([...(viewport.shown.without ?? view?.spec.shown?.without ?? []), element ?? ""]),
    ].sort();
    void edits.change([viewport], { shown: { ...viewport.shown, without } }, "leave an element out");
  };
  return (
    <Group name="Contents">
      <Rows>
        <Buttons>
          <Tooltip
            title={
              moving
                ? "Return to the sheet (Escape)"
                : "Move what is seen within the frame (Enter, or a double click)"
            }
          >
            <Button
              sx={SLIM}
              variant={moving ? "contained" : "outlined"}
              aria-pressed={moving}
              onClick={() => select(viewport.id, !moving)}
            >
              {moving ? "Done" : "Move contents"}
            </Button>
          </Tooltip>
        </Buttons>
        {moving && element ? (
          <Buttons>
            <Tooltip title="Draw this viewport without the element in its middle">
              <Button variant="outlined" sx={SLIM} onClick={leaveOut}>
                Leave it out
              </Button>
            </Tooltip>
          </Buttons>
        ) : moving && storeys.length > 0 ? (
          <ChoiceField
            label="Centre on"
            width={104}
            value=""
            choices={[["", "Storey…"], ...storeys.map((s) => [String(s.elevation), s.name] as const)]}
            onChoose={(level) =>
              level &&
              void edits.change(
                [viewport],
                { centre_v: Number(level) - (viewport.axes?.origin[2] ?? 0) },
                "centre on a storey",
              )
            }
          />
        ) : (
          <Buttons>
            <Tooltip title="All of the drawing is seen, and nothing beside it">
              <span>
                <Button variant="outlined" disabled={!extents || viewport.pinned} onClick={fit}>
                  Fit crop
                </Button>
              </span>
            </Tooltip>
          </Buttons>
        )}
      </Rows>
    </Group>
  );
}
