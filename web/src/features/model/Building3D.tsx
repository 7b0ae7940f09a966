/**
 * The building in 3D: looked at from all sides, taken apart by storey, layer, class and material, picked and
 * measured.
 */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState, type MouseEvent, type PointerEvent } from "react";
import { useNavigate } from "react-router-dom";
import type { ModelVersion, ViewSpec } from "../../api/client";
import { useContextMenu } from "../../components/useContextMenu";
import { colours } from "../../theme/theme";
import { useViewEdits } from "../../sync/views";
import { BuildingTools, FIRST } from "./BuildingTools";
import { CHANGE_COLOURS } from "./changes";
import { ElementFacts } from "./ElementFacts";
import { Measured } from "./Measured";
import { partOf, shownIn3D } from "./shownIn3D";
import { fetchSolid } from "./solid";
import type { Place } from "./measuring";
import { Stage } from "./stage";
import { PartsList, type By } from "./PartsList";
import { Subsets } from "./Subsets";
import { notify } from "../../stores/notices";
import { t } from "../../words/words";

const HOW_TO_MOVE =
  t("The building. Drag or use the arrow keys to turn it, drag with the right button to move it, ") +
  t("turn the wheel or press plus and minus to come nearer, press 0 to see all of it.");
type Tool = "pick" | "measure";

/** What the keys do: walk round and rise, in degrees; come nearer, by a factor. */
const TURNS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-5, 0],
  ArrowRight: [5, 0],
  ArrowUp: [0, 5],
  ArrowDown: [0, -5],
};
const NEARER: Record<string, number> = { "+": 1.15, "=": 1.15, "-": 1 / 1.15 };
const NONE: ReadonlySet<string> = new Set();

const solidOf = (version: number) =>
  ({
    queryKey: ["solid", version],
    queryFn: () => fetchSolid(version),
    staleTime: Infinity,
    gcTime: 300_000,
    structuralSharing: false,
  }) as const;

export function Building3D({ version, before }: { version: ModelVersion; before?: ModelVersion }) {
  const { data: solid, error, isPending } = useQuery(solidOf(version.id));
  const canvas = useRef<HTMLCanvasElement>(null);
  const [stage, setStage] = useState<Stage | null>(null);
  const [unable, setUnable] = useState("");
  const [tool, setTool] = useState<Tool>("pick");
  const [picked, setPicked] = useState<readonly number[]>([]);
  const [face, setFace] = useState<number | null>(null);
  const [ends, setEnds] = useState<readonly Place[]>([]);
  const [off, setOff] = useState<ReadonlySet<string>>(new Set());
  const [by, setBy] = useState<By>("storey");
  const [changed, setChanged] = useState(false);
  const pressedAt = useRef({ x: 0, y: 0 });
  const { menu, open: openMenu } = useContextMenu();
  const navigate = useNavigate();
  const edits = useViewEdits(version.project);

  useEffect(() => {
    if (!canvas.current || !solid) return;
    let made: Stage;
    try {
      made = new Stage(canvas.current, solid);
    } catch {
      queueMicrotask(() => setUnable(t("This browser shows no 3D. Everything else works without it.")));
      return;
    }
    const box = canvas.current.parentElement;
    const fill = () => box && made.resize(box.clientWidth, box.clientHeight);
    fill();
    made.look(FIRST);
    const watch = new ResizeObserver(fill);
    if (box) watch.observe(box);
    setStage(made);
    return () => {
      watch.disconnect();
      made.dispose();
      setStage(null);
    };
  }, [solid]);

  const removed = useMemo(() => new Set(version.changes?.removed.map((e) => e.id)), [version]);
  // What is no longer there can only be shown as it was.
  const { data: earlier } = useQuery({
    ...solidOf(before?.id ?? 0),
    enabled: changed && before !== undefined && removed.size > 0,
  });
  useEffect(
    () => stage?.ghost(earlier, changed ? removed : NONE, CHANGE_COLOURS.removed),
    [stage, earlier, changed, removed],
  );

  const elements = useMemo(() => solid?.elements ?? [], [solid]);
  useEffect(
    () => stage?.show((k) => !off.has(partOf(by, elements[k])) && !off.has(`id:${elements[k]?.id}`)),
    [stage, off, by, elements],
  );
  useEffect(() => {
    const colours = new Map<string, string>();
    if (changed && version.changes)
      for (const kind of ["added", "moved", "reshaped"] as const)
        for (const e of version.changes[kind]) colours.set(e.id, CHANGE_COLOURS[kind]);
    stage?.colour((k) => (picked.includes(k) ? "#86b7bf" : (colours.get(elements[k]?.id ?? "") ?? null)));
  }, [stage, picked, changed, version, elements]);

  const hide = (ids: readonly string[]) => setOff(new Set([...off, ...ids.map((id) => `id:${id}`)]));
  const menuAt = (event: MouseEvent) => {
    const box = event.currentTarget.getBoundingClientRect();
    const hit = stage?.pick(event.clientX - box.left, event.clientY - box.top);
    const under = elements[hit?.element ?? -1];
    const bearing = hit?.bearing ?? null;
    // Of several that are picked, what is done to one of them is done to all.
    const all = hit && picked.includes(hit.element) ? picked : hit ? [hit.element] : [];
    const ids = all.flatMap((k) => elements[k]?.id ?? []);
    if (hit) setPicked(all);
    openMenu(event, [
      under
        ? [
            [
              ids.length > 1
                ? t("Hide {count} elements", { count: ids.length })
                : t("Hide {class}", { class: under.name || under.class }),
              () => hide(ids),
            ],
            [
              t("Only this"),
              () => setOff(new Set(elements.filter((e) => !ids.includes(e.id)).map((e) => `id:${e.id}`))),
            ],
          ]
        : [],
      bearing === null
        ? []
        : [[t("Elevation of this face"), () => void saveView({ kind: "elevation", bearing })]],
      [
        ...(off.size ? [[t("Show everything"), () => setOff(new Set())] as const] : []),
        [t("See all of it"), () => stage?.fit(), "0"],
      ],
      [[t("Save as a view"), save]],
    ]);
  };
  const press = (event: PointerEvent) => {
    const { clientX, clientY } = event;
    pressedAt.current = { x: clientX, y: clientY };
    if (event.button !== 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    const letGo = (e: globalThis.PointerEvent) => {
      window.removeEventListener("pointerup", letGo);
      if (!stage || Math.hypot(e.clientX - clientX, e.clientY - clientY) > 4) return;
      const [x, y] = [clientX - box.left, clientY - box.top];
      if (tool === "pick") {
        const hit = stage.pick(x, y);
        setFace(hit?.bearing ?? null);
        setPicked((old) => {
          if (!hit) return [];
          if (!event.shiftKey) return [hit.element];
          return old.includes(hit.element) ? old.filter((k) => k !== hit.element) : [...old, hit.element];
        });
      } else {
        const place = stage.snap(x, y);
        if (place) setEnds((old) => (old.length === 1 ? [...old, place] : [place]));
      }
    };
    window.addEventListener("pointerup", letGo);
  };

  const saveView = async (spec: ViewSpec) => {
    const made = await edits.make({ ...spec, shown: shownIn3D(elements, by, off) });
    if (made) {
      notify(t("Saved as a view."));
      void navigate(`/projects/${version.project}/views/${made}`);
    }
  };

  const element = elements[picked.at(-1) ?? -1];
  const save = () => {
    const sight = stage?.sight();
    if (sight)
      void saveView("eye" in sight ? { kind: "perspective", ...sight } : { kind: "axonometric", ...sight });
  };
  const anyChange =
    version.changes &&
    (["added", "removed", "moved", "reshaped"] as const).some((kind) => version.changes?.[kind].length);
  return (
    <Box
      component="section"
      aria-label={t("The building in 3D")}
      sx={{
        flex: 1,
        minHeight: 0,
        display: "flex",
        border: `1px solid ${colours.sandDeep}`,
        borderRadius: 1,
        overflow: "hidden",
        bgcolor: colours.sandPale,
      }}
    >
      <Box sx={{ flex: 1, minWidth: 0, display: "flex", flexDirection: "column" }}>
        <BuildingTools
          stage={stage}
          measuring={tool === "measure"}
          changed={anyChange ? changed : null}
          onMeasure={() => {
            setTool(tool === "measure" ? "pick" : "measure");
            setEnds([]);
          }}
          onChanged={() => setChanged(!changed)}
          onSave={save}
        />
        <Box sx={{ position: "relative", flex: 1, minHeight: 0 }}>
          <canvas
            ref={canvas}
            role="application"
            tabIndex={0}
            aria-label={HOW_TO_MOVE}
            onPointerDown={press}
            onContextMenu={(event) => {
              event.preventDefault();
              // A drag with this button has moved the building.
              const { x, y } = pressedAt.current;
              if (Math.hypot(event.clientX - x, event.clientY - y) <= 4) menuAt(event);
            }}
            onKeyDown={(event) => {
              if (event.ctrlKey || event.metaKey || event.altKey) return;
              const [turn, nearer] = [TURNS[event.key], NEARER[event.key]];
              if (turn) stage?.turn(...turn);
              else if (nearer) stage?.nearer(nearer);
              else if (event.key === "0") stage?.fit();
              else return;
              event.preventDefault();
            }}
            style={{
              position: "absolute",
              inset: 0,
              width: "100%",
              height: "100%",
              display: "block",
              cursor: tool === "measure" ? "crosshair" : "grab",
              touchAction: "none",
            }}
          />
          {stage && ends.length > 0 && <Measured stage={stage} ends={ends} />}
          {(isPending || error || unable) && (
            <Box
              sx={{
                position: "absolute",
                inset: 0,
                display: "flex",
                alignItems: "center",
                justifyContent: "center",
                bgcolor: colours.sandPale,
              }}
            >
              {error || unable ? (
                <Alert severity="info">
                  {unable ||
                    t(
                      "This version was read before it could be shown in 3D. Import its file again " +
                        "to see it.",
                    )}
                </Alert>
              ) : (
                <span role="status">{t("Fetching the building …")}</span>
              )}
            </Box>
          )}
        </Box>
      </Box>
      <Box
        sx={{
          width: 232,
          flexShrink: 0,
          borderLeft: `1px solid ${colours.sandDeep}`,
          display: "flex",
          flexDirection: "column",
          minHeight: 0,
        }}
      >
        <PartsList
          elements={elements}
          by={by}
          off={off}
          onBy={(next) => {
            setBy(next);
            setOff(new Set());
          }}
          onOff={setOff}
        />
        <Subsets
          project={version.project}
          elements={elements}
          chosen={
            off.size
              ? elements.filter((e) => !off.has(partOf(by, e)) && !off.has(`id:${e.id}`))
              : elements.filter((_, k) => picked.includes(k))
          }
          onShow={(ids) =>
            setOff(new Set(elements.filter((e) => !ids.includes(e.id)).map((e) => `id:${e.id}`)))
          }
        />
        {element && (
          <ElementFacts
            element={element}
            more={picked.length - 1}
            onHide={() => hide(picked.flatMap((k) => elements[k]?.id ?? []))}
            onFace={face === null ? undefined : () => void saveView({ kind: "elevation", bearing: face })}
          />
        )}
      </Box>
      {menu}
    </Box>
  );
}
