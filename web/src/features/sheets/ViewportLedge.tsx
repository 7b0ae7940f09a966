/**
 * The ledge for a viewport: which view, its scale, its frame, what it shows, its state, and what can be done
 * with it.
 */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import type { Job, ModelVersion, Rung, View, Viewport } from "../../api/client";
import { isActive } from "../../api/jobs";
import { geometryOf, type Geometry } from "../../canvas/geometry";
import { ChoiceField } from "../../components/ChoiceField";
import { ComboField } from "../../components/ComboField";
import { choicesOf } from "../../components/choices";
import { FigureField } from "../../components/FigureField";
import { Buttons, Group, Ledge, Rows } from "../../components/Ledge";
import { More } from "../../components/More";
import { StateMark } from "../../components/StateMark";
import { ToggleButton } from "../../components/ToggleButton";
import type { Edits } from "./sheetCommands";
import { shownFigure } from "./figures";
import { FrameFields } from "./FrameFields";
import { AS_IN_VIEW, ContentsFields, differsFromView, ShownFields } from "./ViewportContents";
import { NO_POINTS, useAnnotating } from "../../stores/annotating";
import { useGesture } from "../../stores/gesture";
import { t } from "../../words/words";
import { said } from "../../words/said";

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
  /** The element that was moved to the middle, to be hidden if that is wanted. */
  element: string | null;
  onBringUpToDate: () => void;
  onToSheets: () => void;
  /** Dimension what is outside of a plan. */
  onDimension: () => void;
  onLevels: () => void;
  onTag: () => void;
  /** Set it beside itself in the sun of several hours. */
  onSun: () => void;
  /** Change the colours of materials in pictures. */
  onColours: () => void;
  onOutlineShape: () => void;
  /** How many touch-ups hold in it. */
  touchUps: number;
  onTouchUp: () => void;
}

const LADDERS = { custom: t("Custom"), metric: t("Metric"), feet: t("Feet and inches") } as const;

/** Have two of its points clicked, and where they lie in another drawing. */
const lineUp = (viewport: Viewport) =>
  useAnnotating.setState({
    ...NO_POINTS,
    tool: "shape",
    pointsFor: { what: "line up", of: [viewport.id] },
  });

export function ViewportLedge(props: Props) {
  const {
    viewport,
    view,
    views,
    version,
    ladder,
    job,
    edits,
    onBringUpToDate,
    onToSheets,
    onDimension,
    onLevels,
    onTag,
    onSun,
    onOutlineShape,
  } = props;
  const draft = useGesture((s) => s.draft?.get(viewport.id));
  const now: Geometry = draft ?? geometryOf(viewport);
  const drawing = job && isActive(job);
  const perspective = view?.spec.kind === "perspective";
  const isUpright = ["elevation", "section"].includes(view?.spec.kind ?? "");
  const change = (to: Parameters<Edits["change"]>[1], what: string) =>
    void edits.change([viewport], to, what);

  return (
    <Ledge label={t("Ledge: viewport")}>
      <Group name={t("View")}>
        <Rows>
          <ChoiceField
            label={t("View shown")}
            width={135}
            value={viewport.view}
            choices={views
              .filter((v) => v.linework || v.id === viewport.view)
              .map((v) => [v.id, v.name] as const)}
            onChoose={(id) => {
              const next = views.find((v) => v.id === id);
              change(
                {
                  view: id,
                  // What is hidden is of the building, and stays hidden; a drawing from others is of none.
                  ...(next?.spec.kind === "received" && { shown: AS_IN_VIEW }),
                  linework: next?.linework,
                  extents: next?.extents,
                  axes: next?.axes,
                  ...middleOf(next),
                },
                t("show {name}", { name: next?.name }),
              );
            }}
          />
          <Box
            sx={{ display: "flex", alignItems: "center", minHeight: 30, mt: "15px", gap: 0.5, width: 135 }}
          >
            {drawing ? (
              <Box role="status" sx={{ fontSize: 11.5, color: "text.secondary" }}>
                {t("being drawn: {waiting}", { waiting: said(job.stage) || t("waiting") })}
              </Box>
            ) : (
              <StateMark state={viewport.state ?? "undrawn"} />
            )}
            {viewport.state === "out_of_date" && !drawing && (
              <Button onClick={onBringUpToDate} sx={{ minHeight: 24, px: 0.5, minWidth: 0 }}>
                {t("Update")}
              </Button>
            )}
          </Box>
        </Rows>
      </Group>
      <Group name={t("Scale")}>
        <Rows>
          {perspective ? (
            <Box sx={{ width: 84, minHeight: 45, fontSize: 12.5, pt: 2.5, color: "text.secondary" }}>
              {t("Not to scale")}
            </Box>
          ) : (
            <ComboField
              label={t("True scale")}
              width={84}
              value={viewport.scale}
              choices={ladder.map((r) => ({ value: r.scale, group: LADDERS[r.ladder] }))}
              onChoose={(scale) => {
                const rung = ladder.find((r) => r.scale === scale);
                change({ scale, ...(rung ? { ratio: rung.ratio } : {}) }, t("scale {scale}", { scale }));
              }}
            />
          )}
          <FigureField
            label={t("Turn")}
            unit="°"
            number
            width={84}
            value={shownFigure(now.turn)}
            onCommit={(value) => change({ turn: Number(value) }, t("turn the contents"))}
          />
        </Rows>
      </Group>
      <FrameFields viewport={viewport} now={now} perspective={perspective} edits={edits} />
      <ShownFields
        viewport={viewport}
        view={view}
        version={version}
        penTables={props.penTables}
        edits={edits}
        onColours={props.onColours}
        touchUps={props.touchUps}
        onTouchUp={props.onTouchUp}
      />
      <ContentsFields
        viewport={viewport}
        view={view}
        version={version}
        edits={edits}
        element={props.element}
        now={now}
      />
      <Group name={t("Title, marks")}>
        <Rows>
          <Box sx={{ display: "flex", gap: 0.75 }}>
            <ChoiceField
              label={t("Title")}
              width={102}
              value={viewport.title_style ?? "plain"}
              choices={TITLES}
              onChoose={(title_style) =>
                change({ title_style: title_style as Viewport["title_style"] }, t("drawing title"))
              }
            />
            <Buttons>
              <ToggleButton
                on={viewport.marks ?? true}
                name={t("Marks")}
                tip={t("Marks of sections, elevations and details")}
                onToggle={() => change({ marks: !(viewport.marks ?? true) }, t("marks shown or not"))}
              />
            </Buttons>
          </Box>
          <Buttons>
            <ToggleButton
              on={viewport.levels ?? true}
              name={t("Levels")}
              tip={t("The storeys’ levels, in elevations and sections")}
              onToggle={() => change({ levels: !(viewport.levels ?? true) }, t("levels shown or not"))}
            />
            <ToggleButton
              on={viewport.grid ?? true}
              name={t("Grid")}
              tip={t("The building’s grid lines, in plans")}
              onToggle={() => change({ grid: !(viewport.grid ?? true) }, t("grid lines shown or not"))}
            />
            <ToggleButton
              on={viewport.rooms ?? true}
              name={t("Rooms")}
              tip={t("Number, name and area of each room, in plans")}
              onToggle={() => change({ rooms: !(viewport.rooms ?? true) }, t("room names shown or not"))}
            />
          </Buttons>
        </Rows>
      </Group>
      <Group name={t("On the sheet")}>
        <Rows>
          <Buttons>
            <ToggleButton
              on={viewport.pinned}
              name={t("Pin")}
              tip={t("Keep frame and contents where they are (I)")}
              onToggle={() =>
                change(
                  { pinned: !viewport.pinned },
                  viewport.pinned ? t("unpin a viewport") : t("pin a viewport"),
                )
              }
            />
            <ToggleButton
              on={viewport.framed}
              name={t("Frame")}
              tip={t("The outline is plotted too")}
              onToggle={() => change({ framed: !viewport.framed }, t("plot the frame or not"))}
            />
          </Buttons>
          <Buttons>
            <More
              commands={[
                [
                  t("Duplicate (Ctrl + D)"),
                  () => void edits.copy([viewport], viewport.sheet, 10, t("duplicate a viewport")),
                ],
                [t("Copy to sheets…"), onToSheets],
                ...(differsFromView(viewport, view)
                  ? [
                      [
                        t("Show as in its view, with the sheet’s pens"),
                        () =>
                          change(
                            { shown: AS_IN_VIEW, pens: { roles: {}, layers: {} }, pen_table: null },
                            t("show a viewport as its view"),
                          ),
                      ] as const,
                    ]
                  : []),
                ...(view?.spec.kind === "plan"
                  ? [[t("Dimension the outer walls…"), onDimension] as const]
                  : []),
                ...(isUpright ? [[t("Set levels…"), onLevels] as const] : []),
                [t("Line up by two points"), () => lineUp(viewport)] as const,
                [t("Outline as a shape"), onOutlineShape] as const,
                [t("Tag elements…"), onTag],
                ...(view?.spec.kind === "received" ? [] : [[t("Sun study…"), onSun] as const]),
                [
                  viewport.opaque ? t("Show what is below") : t("Hide what is below"),
                  () => change({ opaque: !viewport.opaque }, t("hide what is below or not")),
                ],
                ...(view?.spec.kind === "plan"
                  ? [
                      [
                        viewport.room_fill ? t("Leave rooms white") : t("Tint the rooms"),
                        () => change({ room_fill: !viewport.room_fill }, t("tint the rooms or not")),
                      ] as const,
                    ]
                  : []),
                [
                  (viewport.annotation ?? true)
                    ? t("Hide the view’s annotation")
                    : t("Show the view’s annotation"),
                  () => change({ annotation: !(viewport.annotation ?? true) }, t("annotation shown or not")),
                ],
                [t("To the front (Home)"), () => edits.stack([viewport], true)],
                [t("To the back (End)"), () => edits.stack([viewport], false)],
              ]}
            />
            <Tooltip title={t("Delete this viewport; the view stays (Delete)")}>
              <Button sx={SLIM} onClick={() => void edits.remove([viewport])}>
                {t("Delete")}
              </Button>
            </Tooltip>
          </Buttons>
        </Rows>
      </Group>
    </Ledge>
  );
}

const TITLES = choicesOf<NonNullable<Viewport["title_style"]>>({
  plain: t("Plain"),
  bar: t("Scale bar"),
  north: t("Bar, north"),
  none: t("None"),
});
const SLIM = { minWidth: 0, px: 1 };

/** Another view has its own middle, and it is looked at upright. */
function middleOf(view: View | undefined): { centre_u?: number; centre_v?: number; turn: number } {
  if (!view?.extents) return { turn: 0 };
  const [u0 = 0, v0 = 0, u1 = 0, v1 = 0] = view.extents;
  return { centre_u: (u0 + u1) / 2, centre_v: (v0 + v1) / 2, turn: 0 };
}
