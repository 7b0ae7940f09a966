/** Scans of marked prints under the sheet: shown, laid by three points, deleted. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useMemo, type PointerEvent } from "react";
import type { Scan, Sheet } from "../../../api/client";
import { useScans } from "../../../api/reviews";
import { toPaper, toScreen, type Camera, type Point } from "../../../canvas/geometry";
import { byThree, onScan, onSheet, screenMatrix } from "../../../canvas/scans";
import { useReviewing } from "../../../stores/reviewing";
import { notify } from "../../../stores/notices";
import { commit } from "../../../sync/commands";
import { changing, deleting } from "../../../sync/rows";
import { colours, ONE_LINE } from "../../../theme/theme";
import { t } from "../../../words/words";

const NOTHING: never[] = [];

interface Props {
  sheet: Sheet;
  camera: Camera;
}

export function ScansOverlay({ sheet, camera }: Props) {
  const { data: all = NOTHING } = useScans(sheet.project);
  const { hidden, laying } = useReviewing();
  const scans = useMemo(() => all.filter((scan) => scan.sheet === sheet.id), [all, sheet.id]);
  useEffect(() => useReviewing.setState({ laying: null }), [sheet.id]);
  if (!scans.length) return null;
  const laid = scans.find((scan) => scan.id === laying?.scan);
  return (
    <>
      <Box sx={{ position: "absolute", inset: 0, overflow: "hidden", pointerEvents: "none" }}>
        {scans
          .filter((scan) => !hidden.has(scan.id))
          .map((scan) => (
            <img
              key={scan.id}
              src={`/api/scans/${scan.id}/pixels/`}
              alt={t("Scan {name}", { name: scan.name })}
              style={{
                position: "absolute",
                left: 0,
                top: 0,
                width: scan.width,
                height: scan.height,
                maxWidth: "none",
                transformOrigin: "0 0",
                transform: screenMatrix(scan.placement, camera),
                // White of the scan hides nothing, and what is drawn stays in sight.
                mixBlendMode: "multiply",
                opacity: 0.75,
              }}
            />
          ))}
      </Box>
      {laid && <ThreePoints key={laid.id} scan={laid} project={sheet.project} camera={camera} />}
      <Box
        component="section"
        aria-label={t("Scans under this sheet")}
        onPointerDown={(event) => event.stopPropagation()}
        onContextMenu={(event) => event.stopPropagation()}
        sx={{
          position: "absolute",
          left: 10,
          top: 26,
          width: 206,
          p: 1,
          zIndex: 7,
          fontSize: 12.5,
          cursor: "default",
          bgcolor: colours.sandPale,
          border: `1px solid ${colours.sandShade}`,
          borderRadius: 1,
        }}
      >
        {scans.map((scan) => (
          <OneScan key={scan.id} scan={scan} project={sheet.project} shown={!hidden.has(scan.id)} />
        ))}
      </Box>
    </>
  );
}

function OneScan({ scan, project, shown }: { scan: Scan; project: string; shown: boolean }) {
  const small = { minWidth: 0, minHeight: 24, px: 0.75, fontSize: 12 };
  const toggle = () => {
    const hidden = new Set(useReviewing.getState().hidden);
    if (shown) hidden.add(scan.id);
    else hidden.delete(scan.id);
    useReviewing.setState({ hidden });
  };
  return (
    <Box sx={{ py: 0.25 }}>
      <Box title={scan.name} sx={{ ...ONE_LINE, fontWeight: 650 }}>
        {scan.name}
      </Box>
      {!scan.found && scan.version === 1 && (
        <Box sx={{ color: colours.rust }}>{t("No frame was found on it. Lay it by three points.")}</Box>
      )}
      <Box sx={{ display: "flex", ml: -0.75 }}>
        <Button
          onClick={toggle}
          aria-label={t("{which} scan {name}", { which: shown ? t("Hide") : t("Show"), name: scan.name })}
          sx={small}
        >
          {shown ? t("Hide") : t("Show")}
        </Button>
        <Button
          disabled={!shown}
          onClick={() => useReviewing.setState({ laying: { scan: scan.id, pairs: [], pixel: null } })}
          sx={small}
        >
          {t("By three points")}
        </Button>
        <Button
          aria-label={t("Delete scan {name}", { name: scan.name })}
          onClick={() =>
            void commit(project, t("delete the scan {name}", { name: scan.name }), [deleting("scans", scan)])
          }
          sx={small}
        >
          {t("Delete")}
        </Button>
      </Box>
    </Box>
  );
}

/** Three places on the scan, each followed by where it belongs on the sheet; Escape ends it. */
function ThreePoints({ scan, project, camera }: { scan: Scan; project: string; camera: Camera }) {
  const laying = useReviewing((s) => s.laying);
  useEffect(() => {
    const escape = (event: KeyboardEvent) => {
      if (event.key !== "Escape") return;
      event.stopPropagation();
      useReviewing.setState({ laying: null });
    };
    window.addEventListener("keydown", escape, true);
    return () => window.removeEventListener("keydown", escape, true);
  }, []);
  if (!laying) return null;
  const { pairs, pixel } = laying;
  const click = (event: PointerEvent) => {
    event.stopPropagation();
    const { left, top } = event.currentTarget.getBoundingClientRect();
    const place = toPaper(camera, event.clientX - left, event.clientY - top);
    if (!pixel) return useReviewing.setState({ laying: { ...laying, pixel: onScan(scan.placement, place) } });
    const all = [...pairs, [pixel, place] as const];
    const [first, second, third] = all;
    if (!first || !second || !third)
      return useReviewing.setState({ laying: { ...laying, pairs: all, pixel: null } });
    useReviewing.setState({ laying: null });
    const placement = byThree([first[0], second[0], third[0]], [first[1], second[1], third[1]]);
    if (!placement) return notify(t("These places lie on one line. Choose three that do not."), true);
    void commit(project, t("lay the scan {name}", { name: scan.name }), [
      changing("scans", scan, { placement }),
    ]);
  };
  const dots: Point[] = [
    ...pairs.map(([, place]) => place),
    ...(pixel ? [onSheet(scan.placement, pixel)] : []),
  ];
  return (
    <Box
      onPointerDown={click}
      sx={{ position: "absolute", inset: 0, zIndex: 6, cursor: "crosshair", touchAction: "none" }}
    >
      <svg aria-hidden style={{ position: "absolute", inset: 0, width: "100%", height: "100%" }}>
        {dots.map(([x, y], k) => {
          const [px, py] = toScreen(camera, x, y);
          return <circle key={k} cx={px} cy={py} r={6} fill="none" stroke={colours.rust} strokeWidth={2} />;
        })}
      </svg>
      <Box
        role="status"
        sx={{
          position: "absolute",
          left: "50%",
          bottom: 14,
          transform: "translateX(-50%)",
          px: 1.5,
          py: 0.75,
          fontSize: 13,
          bgcolor: colours.ink,
          color: colours.sandLight,
          borderRadius: 1,
        }}
      >
        {t("{which} ({pairs} of 3). Escape ends it.", {
          which: pixel ? t("Click where that belongs on the sheet") : t("Click a place on the scan"),
          pairs: pairs.length + 1,
        })}
      </Box>
    </Box>
  );
}
