/** What others say of the sheet, over the board: where each comment lies now, and the one that is open. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useMemo } from "react";
import type { Comment, DisplayList, Sheet } from "../../../api/client";
import { useComments } from "../../../api/reviews";
import { mappedMark, movedPlace, pointsOf } from "../../../canvas/commentMarks";
import { toScreen, type Camera } from "../../../canvas/geometry";
import { CommentMarks } from "../../../components/CommentMarks";
import { CommentPanel } from "../../../components/CommentPanel";
import { useBoard } from "../../../stores/board";
import { useReviewing } from "../../../stores/reviewing";
import { colours } from "../../../theme/theme";
import { t } from "../../../words/words";

const NOTHING: never[] = [];
interface Props {
  sheet: Sheet;
  display: DisplayList;
  camera: Camera;
}

/** A comment whose marks lie where its drawing lies now. */
function placedNow(comment: Comment, display: DisplayList): Comment {
  if (!comment.viewport) return comment;
  const now = display.items.find((item) => item.type === "drawing" && item.viewport === comment.viewport);
  if (now?.type !== "drawing") return comment;
  const before = comment.placement as Parameters<typeof movedPlace>[0];
  const lies = { place: now.place as [number, number], ratio: now.ratio, turn: now.turn ?? 0 };
  return {
    ...comment,
    marks: comment.marks.map((mark) => mappedMark(mark, (at) => movedPlace(before, lies, at))),
  };
}

export function CommentsOverlay({ sheet, display, camera }: Props) {
  const { data: all = NOTHING } = useComments(sheet.project);
  const { shown, comment: openId } = useReviewing();
  const comments = useMemo(
    () => all.filter((c) => c.sheet === sheet.id).map((c) => placedNow(c, display)),
    [all, sheet.id, display],
  );
  const open = shown ? comments.find((c) => c.id === openId) : undefined;
  const choose = (id: string | null) => useReviewing.setState({ comment: id });

  // Whoever comes here for a comment sees it.
  const [mark] = open?.marks ?? NOTHING;
  const [at] = mark ? pointsOf(mark) : NOTHING;
  const [x, y] = at ?? [0, 0];
  const there = at !== undefined;
  useEffect(() => {
    const { camera: now, room } = useBoard.getState();
    if (!there || !now || !room.width) return;
    const [px, py] = toScreen(now, x, y);
    if (px > 30 && py > 30 && px < room.width - CARD && py < room.height - 30) return;
    useBoard.setState({
      camera: { ...now, x: now.x + room.width / 3 - px, y: now.y + room.height / 2 - py },
    });
  }, [openId, there, x, y]);

  if (!comments.length) return null;
  const waiting = comments.filter((c) => c.state === "open").length;
  const words = waiting ? t("{waiting} open", { waiting }) : t("none open");
  return (
    <>
      {shown && <CommentMarks comments={comments} camera={camera} chosen={openId} onChoose={choose} />}
      <Box
        onPointerDown={(event) => event.stopPropagation()}
        onContextMenu={(event) => event.stopPropagation()}
        sx={{
          position: "absolute",
          right: 10,
          top: 26,
          zIndex: 5,
          maxHeight: "calc(100% - 36px)",
          display: "flex",
          flexDirection: "column",
          alignItems: "flex-end",
          cursor: "default",
        }}
      >
        <Button
          variant="outlined"
          aria-pressed={shown}
          onClick={() => useReviewing.setState({ shown: !shown, comment: null })}
        >
          {t("{which} comments ({words})", { which: shown ? t("Hide") : t("Show"), words })}
        </Button>
        {open && (
          <Box
            component="section"
            aria-label={t("Comment {number}", { number: open.number })}
            sx={{
              mt: 0.75,
              width: CARD,
              minHeight: 0,
              overflowY: "auto",
              p: 1.5,
              fontSize: 13,
              bgcolor: colours.sandPale,
              border: `1px solid ${colours.sandShade}`,
              borderRadius: 1,
              boxShadow: "0 3px 14px rgba(74, 60, 34, 0.25)",
            }}
          >
            <Box sx={{ display: "flex", justifyContent: "flex-end", mt: -0.75, mr: -0.75, mb: -3 }}>
              <Button onClick={() => choose(null)}>{t("Close")}</Button>
            </Box>
            <CommentPanel comment={open} />
          </Box>
        )}
      </Box>
    </>
  );
}

/** How wide the card of a comment is, pixels. */
const CARD = 340;
