/** Marks of comments over a sheet, on the board and on the page of a review. */
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import { memo } from "react";
import type { CommentState, Mark } from "../api/client";
import { markPath, pointsOf } from "../canvas/commentMarks";
import { toScreen, type Camera, type Point } from "../canvas/geometry";
import { colours } from "../theme/theme";
import { exactLengthOf, useLengths } from "./lengths";
import { t } from "../words/words";

export const COMMENT_COLOURS: Record<CommentState, string> = {
  open: colours.rust,
  answered: colours.sea,
  done: "#4b6b3c",
  declined: colours.inkSoft,
};

/** A comment, as far as it is drawn. */
export interface Marked {
  id: string;
  number: number;
  author: string;
  text: string;
  state: CommentState;
  marks: readonly Mark[];
}

interface Props {
  comments: readonly Marked[];
  camera: Camera;
  chosen: string | null;
  onChoose: (id: string) => void;
}

/** All comments of a sheet; what was said without a mark is in the list alone. */
export const CommentMarks = memo(function CommentMarks({ comments, camera, chosen, onChoose }: Props) {
  const seen = comments.filter((comment) => comment.marks.length > 0);
  return (
    <>
      <Box component="svg" aria-hidden sx={SVG}>
        {seen.map((comment) => (
          <Lines
            key={comment.id}
            marks={comment.marks}
            text={comment.text}
            camera={camera}
            colour={COMMENT_COLOURS[comment.state]}
            strong={comment.id === chosen}
          />
        ))}
      </Box>
      {seen.map((comment) => (
        <Pin
          key={comment.id}
          comment={comment}
          camera={camera}
          chosen={comment.id === chosen}
          onChoose={onChoose}
        />
      ))}
    </>
  );
});

const SVG = { position: "absolute", inset: 0, width: "100%", height: "100%", pointerEvents: "none" } as const;

interface LinesProps {
  marks: readonly Mark[];
  text: string;
  camera: Camera;
  colour: string;
  strong?: boolean;
}

/** The lines and words of some marks. */
export function Lines({ marks, text, camera, colour, strong = false }: LinesProps) {
  const lengths = useLengths();
  const at = ([x, y]: Point) => toScreen(camera, x, y);
  return (
    <g
      fill="none"
      stroke={colour}
      strokeWidth={strong ? 3 : 2}
      strokeLinecap="round"
      strokeLinejoin="round"
      fontSize={13}
      fontWeight={600}
    >
      {marks.map((mark, k) => {
        const path = markPath(mark, at, camera.scale);
        const [first = [0, 0], last = [0, 0]] = pointsOf(mark).map(at);
        const filled = mark.kind === "area" && mark.filled;
        return (
          <g key={k}>
            {path && (
              <path
                d={path}
                fill={filled ? colour : "none"}
                fillOpacity={0.25}
                stroke={filled ? "none" : colour}
              />
            )}
            {mark.kind === "length" && (
              // The number of the comment stands above its first end.
              <Label x={(first[0] + last[0]) / 2 + 10} y={(first[1] + last[1]) / 2 + 18} colour={colour}>
                {mark.length > 0 ? exactLengthOf(mark.length, lengths) : t("no scale here")}
              </Label>
            )}
            {mark.kind === "text" &&
              text
                .split("\n")
                .slice(0, 12)
                .map((line, i) => (
                  <Label key={i} x={first[0] + 14} y={first[1] + 14 + 17 * i} colour={colour}>
                    {line.slice(0, 80)}
                  </Label>
                ))}
          </g>
        );
      })}
    </g>
  );
}

interface LabelProps {
  x: number;
  y: number;
  colour: string;
  children: string;
}

/** Words over a drawing: with paper about them, so that no line runs through. */
function Label({ x, y, colour, children }: LabelProps) {
  return (
    <text x={x} y={y} fill={colour} stroke="#fff" strokeWidth={4} paintOrder="stroke">
      {children}
    </text>
  );
}

interface PinProps {
  comment: Marked;
  camera: Camera;
  chosen: boolean;
  onChoose: (id: string) => void;
}

/** The number of a comment at its place. */
function Pin({ comment, camera, chosen, onChoose }: PinProps) {
  const [mark] = comment.marks;
  const [at] = mark ? pointsOf(mark) : [];
  if (!at) return null;
  const [x, y] = toScreen(camera, at[0], at[1]);
  const words = comment.text.length > 60 ? `${comment.text.slice(0, 60)}…` : comment.text;
  return (
    <ButtonBase
      aria-label={t("Comment {number} by {author}: {mark}", {
        number: comment.number,
        author: comment.author,
        mark: words || t("a mark"),
      })}
      aria-pressed={chosen}
      onClick={(event) => {
        event.stopPropagation();
        onChoose(comment.id);
      }}
      onPointerDown={(event) => event.stopPropagation()}
      sx={{
        position: "absolute",
        left: x - 12,
        top: y - 12,
        width: 24,
        height: 24,
        borderRadius: "50% 50% 50% 2px",
        transform: "translate(12px, -12px)",
        bgcolor: COMMENT_COLOURS[comment.state],
        color: "#fff",
        fontSize: 11.5,
        fontWeight: 700,
        fontVariantNumeric: "tabular-nums",
        border: "2px solid #fff",
        boxShadow: chosen ? `0 0 0 3px ${colours.ink}` : "0 1px 3px rgba(31, 43, 51, 0.5)",
        zIndex: chosen ? 2 : 1,
      }}
    >
      {comment.number}
    </ButtonBase>
  );
}
