/** What a viewport shows, with which pens, and where in the drawing it is. */
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import type { ModelVersion, Shown, View, Viewport } from "../../api/client";
import { useReceivedFiles } from "../../api/views";
import { filling, fittedTo, type Extents, type Geometry } from "../../canvas/geometry";
import { ChoiceField } from "../../components/ChoiceField";
import { Buttons, Group, Rows } from "../../components/Ledge";
import { leftOut, ShownMenu, type ShownKey } from "../../components/ShownMenu";
import { select, useSelection } from "../../stores/selection";
import { AppearanceMenu } from "./AppearanceMenu";
import { PensMenu, pensChanged } from "./PensMenu";
import type { Edits } from "./sheetCommands";
import { t } from "../../words/words";

interface Props {
  viewport: Viewport;
  view: View | undefined;
  version: ModelVersion | undefined;
  edits: Edits;
}
/** What a viewport shows where that is what its view shows. */
const NOTHING: never[] = [];
export const AS_IN_VIEW = {} as Viewport["shown"];
const SLIM = { minWidth: 0, px: 1 };

/** Whether a viewport shows something else than its view, or in other pens than its sheet. */
export function differsFromView(viewport: Viewport, view: View | undefined): boolean {
  const ofView: Shown = view?.spec.shown ?? {};
  return (
    leftOut({ ...ofView, ...viewport.shown }) !== leftOut(ofView) ||
    Object.keys(viewport.shown).length > 0 ||
    pensChanged(viewport.pens) > 0 ||
    viewport.pen_table !== null
  );
}

/** What it shows and with which pens, where that differs from its view. */
export function ShownFields({
  viewport,
  view,
  version,
  penTables,
  edits,
  onColours,
  touchUps,
  onTouchUp,
}: Props & {
  penTables: readonly (readonly [key: string, name: string])[];
  onColours: () => void;
  touchUps: number;
  onTouchUp: () => void;
}) {
  const { data: files = NOTHING } = useReceivedFiles(view?.project ?? "");
  const file = files.find((f) => f.file === view?.spec.file);
  const facts = view?.spec.kind === "received" ? { layers: file?.facts.layers ?? {} } : version?.facts;
  const ofView: Shown = view?.spec.shown ?? {};
  const shown: Shown = { ...ofView, ...viewport.shown };
  const differs = differsFromView(viewport, view);
  const show = (key: ShownKey, names: string[]) => {
    const { [key]: _, ...rest } = viewport.shown as Shown;
    const same = JSON.stringify([...(ofView[key] ?? [])].sort()) === JSON.stringify(names);
    void edits.change(
      [viewport],
      { shown: (same ? rest : { ...rest, [key]: names }) as Viewport["shown"] },
      t("what a viewport shows"),
    );
  };
  return (
    <Group name={differs ? t("Shown (changed)") : t("Shown")} about={t("Shown in a viewport")}>
      <Rows>
        <Buttons>
          <ShownMenu shown={shown} facts={facts} onChange={show} />
          {view?.spec.kind !== "received" && (
            <AppearanceMenu viewports={[viewport]} viewOf={() => view} edits={edits} onColours={onColours} />
          )}
        </Buttons>
        <Buttons>
          <PensMenu
            pens={viewport.pens}
            table={viewport.pen_table}
            tables={penTables}
            onTable={(pen_table) =>
              void edits.change([viewport], { pen_table }, t("pen table of a viewport"))
            }
            layers={Object.keys(version?.facts.layers ?? {})}
            onChange={(pens) => void edits.change([viewport], { pens }, t("pens of a viewport"))}
          />
          <Tooltip title={t("Hide lines, or draw them otherwise; it is remembered (E)")}>
            <span>
              <Button
                sx={SLIM}
                variant="outlined"
                disabled={!viewport.linework}
                aria-label={touchUps ? t("Touched up ({touchUps})", { touchUps }) : t("Touch up")}
                onClick={onTouchUp}
              >
                {touchUps ? t("Touched") : t("Touch up")}
              </Button>
            </span>
          </Tooltip>
        </Buttons>
      </Rows>
    </Group>
  );
}

export function ContentsFields({
  viewport,
  view,
  version,
  edits,
  element,
  now,
}: Props & {
  /** The element that was moved to the middle, to be hidden if that is wanted. */
  element: string | null;
  now: Geometry;
}) {
  const moving = useSelection((s) => s.movingContents);
  const extents = viewport.extents as unknown as Extents | null;
  const storeys = viewport.axes && (viewport.axes.up[2] ?? 0) > 0.999 ? (version?.facts.storeys ?? []) : [];
  const fit = () =>
    extents &&
    void edits.reshape(
      new Map([
        [viewport.id, view?.spec.kind === "perspective" ? filling(now, extents) : fittedTo(now, extents)],
      ]),
      t("fit the crop to the drawing"),
    );
  const leaveOut = () => {
    const without = [
      ...new Set([...(viewport.shown.without ?? view?.spec.shown?.without ?? []), element ?? ""]),
    ].sort();
    void edits.change([viewport], { shown: { ...viewport.shown, without } }, t("hide an element"));
  };
  return (
    <Group name={t("Contents")}>
      <Rows>
        <Buttons>
          <Tooltip
            title={
              moving
                ? t("Return to the sheet (Escape)")
                : t("Move the contents within the frame (Enter, or a double click)")
            }
          >
            <Button
              sx={SLIM}
              variant={moving ? "contained" : "outlined"}
              aria-pressed={moving}
              onClick={() => select(viewport.id, !moving)}
            >
              {moving ? t("Done") : t("Move contents")}
            </Button>
          </Tooltip>
        </Buttons>
        {moving && element ? (
          <Buttons>
            <Tooltip title={t("Draw this viewport without the element in its middle")}>
              <Button variant="outlined" sx={SLIM} onClick={leaveOut}>
                {t("Hide it")}
              </Button>
            </Tooltip>
          </Buttons>
        ) : moving && storeys.length > 0 ? (
          <ChoiceField
            label={t("Centre on")}
            width={104}
            value=""
            choices={[["", t("Storey…")], ...storeys.map((s) => [String(s.elevation), s.name] as const)]}
            onChoose={(level) =>
              level &&
              void edits.change(
                [viewport],
                { centre_v: Number(level) - (viewport.axes?.origin[2] ?? 0) },
                t("centre on a storey"),
              )
            }
          />
        ) : (
          <Buttons>
            <Tooltip title={t("Show all of the drawing and nothing beside it")}>
              <span>
                <Button variant="outlined" disabled={!extents || viewport.pinned} onClick={fit}>
                  {t("Fit crop")}
                </Button>
              </span>
            </Tooltip>
          </Buttons>
        )}
      </Rows>
    </Group>
  );
}
