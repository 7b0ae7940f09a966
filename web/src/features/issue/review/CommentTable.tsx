/** All comments of the set, filtered; the one that is chosen is shown beside. */
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import type { Comment } from "../../../api/client";
import { CommentStateMark } from "../../../components/CommentStateMark";
import { isoDay, useMoments } from "../../../components/moments";
import { useNow } from "../../../components/useNow";
import { colours, ONE_LINE } from "../../../theme/theme";
import { t } from "../../../words/words";

const CELL = { ...ONE_LINE, textAlign: "left" } as const;
const COLUMNS = "30px 84px 54px minmax(0, 1fr) 92px 84px";
const NARROW_COLUMNS = "26px 84px 48px minmax(0, 1fr)";

interface Props {
  comments: readonly Comment[];
  chosen: string | null;
  onChoose: (id: string) => void;
}

export function CommentTable({ comments, chosen, onChoose }: Props) {
  const { dayOf } = useMoments();
  const today = isoDay(useNow());
  return (
    <Box
      role="table"
      aria-label={t("Comments")}
      sx={{
        flex: 1,
        minHeight: 0,
        overflow: "auto",
        fontSize: 13,
        // A small window has room for the comments alone; the rest is seen beside the chosen one.
        "@media (max-width: 1199px)": {
          "& [role=row]": { gridTemplateColumns: NARROW_COLUMNS },
          "& [role=row] > :nth-of-type(n + 5)": { display: "none" },
        },
      }}
    >
      <Box
        role="row"
        sx={{ ...ROW, position: "sticky", top: 0, bgcolor: colours.sandLight, zIndex: 1, fontSize: 11.5 }}
      >
        {[t("No."), t("State"), t("Sheet"), t("Comment"), t("Assigned to"), t("Due")].map((name) => (
          <Box key={name} role="columnheader" sx={{ ...CELL, color: "text.secondary" }}>
            {name}
          </Box>
        ))}
      </Box>
      {comments.map((comment) => {
        const late = comment.due && comment.due < today && ["open", "answered"].includes(comment.state);
        return (
          <ButtonBase
            key={comment.id}
            role="row"
            aria-selected={comment.id === chosen}
            onClick={() => onChoose(comment.id)}
            sx={{
              ...ROW,
              width: "100%",
              bgcolor: comment.id === chosen ? colours.rustPale : "transparent",
              "&:hover": { bgcolor: comment.id === chosen ? colours.rustPale : "#fff" },
            }}
          >
            <Box role="cell" sx={{ ...CELL, fontWeight: 650 }}>
              {comment.number}
            </Box>
            <Box role="cell" sx={CELL}>
              <CommentStateMark state={comment.state} />
            </Box>
            <Box role="cell" sx={CELL}>
              {comment.sheet_number || "–"}
            </Box>
            <Box role="cell" sx={CELL}>
              <Box sx={ONE_LINE}>{comment.text.replace(/\s+/g, " ") || t("A mark without words.")}</Box>
              <Box sx={{ ...ONE_LINE, fontSize: 12, color: "text.secondary" }}>
                {comment.author}, {dayOf(comment.made)}
                {comment.answers.length > 0 && `, ${answersWord(comment.answers.length)}`}
              </Box>
            </Box>
            <Box role="cell" sx={CELL}>
              {comment.assigned}
            </Box>
            <Box
              role="cell"
              sx={{ ...CELL, color: late ? colours.rust : undefined, fontWeight: late ? 650 : 400 }}
            >
              {comment.due ? dayOf(comment.due) : ""}
              {late ? t(" (late)") : ""}
            </Box>
          </ButtonBase>
        );
      })}
    </Box>
  );
}

const answersWord = (count: number) => (count === 1 ? t("1 answer") : t("{count} answers", { count }));

const ROW = {
  display: "grid",
  gridTemplateColumns: COLUMNS,
  gap: 1,
  px: 1.5,
  py: 0.5,
  minHeight: 30,
  alignItems: "center",
  borderBottom: `1px solid ${colours.sandDeep}`,
} as const;
