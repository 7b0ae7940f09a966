/** What pens and hatches look like: lines and areas at four pixels to the millimetre. */
import Box from "@mui/material/Box";
import type { Cut, PenSpec, PenParts, Stroke } from "../../../api/client";
import { screened } from "../../../canvas/penColours";
import { fittedTo } from "../../../canvas/patterns";
import { colours } from "../../../theme/theme";

const PIXELS = 4;
const INK = "#1b1f24";

/** A line as a pen draws it. */
export function LineSample({
  stroke,
  penParts,
  width = 84,
}: {
  stroke: Stroke;
  penParts: PenParts;
  width?: number;
}) {
  const broad = (stroke.width ?? 0.18) * PIXELS;
  const pattern = penParts.patterns.find((p) => p.name === (stroke.pattern ?? "solid"))?.lengths ?? [];
  const dashes = pattern.length
    ? fittedTo(
        pattern.map((length) => length * broad),
        width,
      )
    : [];
  return (
    <Box
      component="svg"
      aria-hidden
      sx={{ width, height: 20, flexShrink: 0, bgcolor: colours.paper, borderRadius: "2px" }}
      viewBox={`0 0 ${width} 20`}
    >
      <line
        x1={0}
        x2={width}
        y1={10}
        y2={10}
        stroke={screened(stroke.colour ?? INK, stroke.screen ?? 100)}
        strokeWidth={broad}
        strokeDasharray={dashes.join(" ")}
      />
    </Box>
  );
}

/** The four lines that are to read apart, one under the other. */
export function TableSample({ spec, penParts }: { spec: PenSpec; penParts: PenParts }) {
  return (
    <Box sx={{ display: "flex", flexDirection: "column", "& svg": { height: 7 } }}>
      {["cut", "profile", "edge", "far"].map((role) => (
        <LineSample key={role} stroke={spec.roles[role] ?? {}} penParts={penParts} width={52} />
      ))}
    </Box>
  );
}

/** An area as it is filled and hatched where it is cut. Hatch figures as the display list has them. */
export function CutSample({
  cut,
  families,
}: {
  cut: Cut;
  families: readonly {
    angle: number;
    apart: number;
    shift: number;
    dashes: readonly number[];
    slide: number;
  }[];
}) {
  const [width, height] = [84, 24];
  const lines = families.flatMap((family) => {
    const angle = ((family.angle + (cut.angle ?? 0)) * Math.PI) / 180;
    const [ax, ay] = [Math.cos(angle), -Math.sin(angle)];
    const step = family.apart * (cut.spacing ?? 1.5) * PIXELS;
    const reach = width + height;
    return Array.from({ length: 2 * Math.ceil(reach / step) + 1 }, (_, k) => {
      const row = k - Math.ceil(reach / step);
      const off = (row + family.shift) * step;
      const slide = row * family.slide * (cut.spacing ?? 1.5) * PIXELS;
      const [x, y] = [width / 2 + off * ay, height / 2 - off * ax];
      return {
        x1: x - reach * ax,
        y1: y - reach * ay,
        x2: x + reach * ax,
        y2: y + reach * ay,
        dashes: family.dashes.map((d) => d * (cut.spacing ?? 1.5) * PIXELS),
        slide,
      };
    });
  });
  return (
    <Box
      component="svg"
      aria-hidden
      sx={{ width, height, flexShrink: 0, bgcolor: colours.paper, border: `1px solid ${INK}` }}
      viewBox={`0 0 ${width} ${height}`}
    >
      {cut.fill && (
        <rect width={width} height={height} fill={cut.fill} fillOpacity={(cut.opacity ?? 100) / 100} />
      )}
      {lines.map((line, k) => (
        <line
          key={k}
          x1={line.x1}
          y1={line.y1}
          x2={line.x2}
          y2={line.y2}
          stroke={screened(cut.colour ?? INK, cut.screen ?? 100)}
          strokeWidth={(cut.width ?? 0.13) * PIXELS}
          strokeDasharray={line.dashes.join(" ")}
          strokeDashoffset={-line.slide}
        />
      ))}
    </Box>
  );
}
