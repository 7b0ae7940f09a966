/** One view, large, with all that can be set of it on the ledge and a key drawing to drag its limits on. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import type { Job, ModelVersion, View } from "../../api/client";
import { useState } from "react";
import { isActive } from "../../api/jobs";
import { useReceivedFiles } from "../../api/views";
import { BOARD, LEDGE, LIST, STATION } from "../../components/stationLayout";
import { StateMark } from "../../components/StateMark";
import type { Point } from "../../canvas/geometry";
import { pictures } from "../../canvas/pictures";
import { colours } from "../../theme/theme";
import { Drawing, onScreen } from "./Drawing";
import { ReceivedLedge } from "./ReceivedLedge";
import type { ViewEdits } from "../../sync/views";
import { KeyDrawing } from "./KeyDrawing";
import { GROUPS } from "./kinds";
import { ViewLedge } from "./ViewLedge";
import { t } from "../../words/words";
import { said } from "../../words/said";

interface Props {
  view: View;
  views: View[];
  version: ModelVersion | undefined;
  jobs: Job[];
  edits: ViewEdits;
  onOpen: (id?: string) => void;
  onDelete: () => void;
  onDetail: () => void;
}

const NOTHING: never[] = [];
/** How near to something a pick snaps to it, as a share of the drawing. */
const REACH = 0.01;

export function OneView({ view, views, version, jobs, edits, onOpen, onDelete, onDetail }: Props) {
  const job = jobs.find((j) => j.kind === "draw" && j.subject === view.wanted && isActive(j));
  const failed = jobs.find((j) => j.kind === "draw" && j.subject === view.wanted);
  const { data: files = NOTHING } = useReceivedFiles(view.project);
  const [points, setPoints] = useState<readonly Point[] | null>(null);
  /** A point of the drawing that was clicked, or the corner that is near it. */
  async function pick(at: Point) {
    const [u0, v0, u1, v1] = view.extents ?? [0, 0, 1, 1];
    const reach = Math.hypot((u1 ?? 1) - (u0 ?? 0), (v1 ?? 1) - (v0 ?? 0)) * REACH;
    const snap = view.linework ? await pictures.snapAt(view.linework, at, reach, []) : null;
    setPoints((now) => (now && now.length < 2 ? [...now, snap?.at ?? at] : now));
  }
  return (
    <Box sx={STATION}>
      <Box component="nav" aria-label={t("Views")} sx={{ ...LIST, width: 204, bgcolor: colours.sandLight }}>
        <Button onClick={() => onOpen()} sx={{ m: 1, justifyContent: "flex-start" }}>
          {t("All views")}
        </Button>
        <Box sx={{ flex: 1, overflowY: "auto", pb: 1 }}>
          {GROUPS.map(([name, kinds]) => {
            const group = views.filter((v) => kinds.includes(v.spec.kind));
            if (!group.length) return null;
            return (
              <Box key={name} role="group" aria-label={name}>
                <Box sx={{ px: 1.75, pt: 1, pb: 0.25, fontSize: 11.5, color: "text.secondary" }}>{name}</Box>
                {group.map((v) => (
                  <ButtonBase
                    key={v.id}
                    onClick={() => onOpen(v.id)}
                    aria-current={v.id === view.id ? "page" : undefined}
                    sx={{
                      width: "100%",
                      justifyContent: "space-between",
                      gap: 1,
                      px: 1.75,
                      py: 0.4,
                      textAlign: "left",
                      fontSize: 12.5,
                      fontWeight: v.id === view.id ? 650 : 400,
                      bgcolor: v.id === view.id ? colours.sand : "transparent",
                      boxShadow: v.id === view.id ? `inset 3px 0 0 ${colours.rust}` : "none",
                      "&:hover": { bgcolor: v.id === view.id ? colours.sand : colours.sandPale },
                    }}
                  >
                    <Box component="span" sx={{ minWidth: 0, overflowWrap: "anywhere" }}>
                      {v.name}
                    </Box>
                    {v.state !== "up_to_date" && <StateMark state={v.state} />}
                  </ButtonBase>
                ))}
              </Box>
            );
          })}
        </Box>
        <KeyDrawing view={view} views={views} storeys={version?.facts.storeys ?? []} edits={edits} />
      </Box>
      <Box sx={BOARD}>
        <Box sx={{ position: "relative", flex: 1, minHeight: 0 }}>
          <Drawing
            key={view.id}
            linework={view.linework}
            extents={view.extents}
            label={t("Drawing of {name}", { name: view.name })}
            cursor={points && points.length < 2 ? "crosshair" : undefined}
            onPoint={points && points.length < 2 ? (at) => void pick(at) : undefined}
          >
            {(sight) =>
              points?.map((at, k) => {
                const [x, y] = onScreen(sight, at[0], at[1]);
                return (
                  <Box
                    key={k}
                    sx={{
                      position: "absolute",
                      left: x - 5,
                      top: y - 5,
                      width: 10,
                      height: 10,
                      borderRadius: "50%",
                      border: `2px solid ${colours.rust}`,
                      pointerEvents: "none",
                    }}
                  />
                );
              })
            }
          </Drawing>
          <Notes
            key={view.id}
            view={view}
            job={job}
            failed={failed?.state === "failed" ? failed : undefined}
          />
        </Box>
      </Box>
      <Box sx={LEDGE}>
        {view.spec.kind === "received" ? (
          <ReceivedLedge
            view={view}
            file={files.find((f) => f.file === view.spec.file)}
            edits={edits}
            picked={points && points.length === 2 ? apart(points) : points ? "picking" : null}
            onPick={(on) => setPoints(on ? [] : null)}
            onDelete={onDelete}
          />
        ) : (
          <ViewLedge
            view={view}
            version={version}
            drawing={Boolean(job)}
            edits={edits}
            onOpen={onOpen}
            onDelete={onDelete}
            onDetail={onDetail}
          />
        )}
      </Box>
    </Box>
  );
}

const apart = ([a = [0, 0], b = [0, 0]]: readonly Point[]) => Math.hypot(b[0] - a[0], b[1] - a[1]);

/** What the drawing says of itself, and whether it is being drawn. */
function Notes({ view, job, failed }: { view: View; job: Job | undefined; failed: Job | undefined }) {
  const [closed, setClosed] = useState("");
  const lines = job
    ? [t("Being drawn anew: {waiting}", { waiting: said(job.stage) || t("waiting") })]
    : failed
      ? [said(failed.message)]
      : view.notes.map(said);
  const all = lines.join("\n");
  // What is new is said, also where something else was closed.
  if (!lines.length || all === closed) return null;
  return (
    <Box
      role="status"
      sx={{
        position: "absolute",
        left: 12,
        top: 12,
        maxWidth: 420,
        px: 1.25,
        py: 0.5,
        bgcolor: colours.sandPale,
        border: `1px solid ${colours.sandDeep}`,
        borderRadius: 1,
        fontSize: 12.5,
        display: "flex",
        alignItems: "flex-start",
        gap: 1,
      }}
    >
      <div>
        {lines.map((line) => (
          <div key={line}>{line}</div>
        ))}
      </div>
      {!job && (
        <Button onClick={() => setClosed(all)} sx={{ minWidth: 0, minHeight: 20, px: 0.5, py: 0 }}>
          {t("Close")}
        </Button>
      )}
    </Box>
  );
}
