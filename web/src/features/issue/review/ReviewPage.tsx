/** Reviews: which were asked for, and all that was said of the set. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useState } from "react";
import { useNavigate, useSearchParams } from "react-router-dom";
import type { Comment, Project, Review, Sheet } from "../../../api/client";
import { useIssues } from "../../../api/issues";
import { useComments, useReviews } from "../../../api/reviews";
import { ChoiceField } from "../../../components/ChoiceField";
import { CommentPanel } from "../../../components/CommentPanel";
import { COMMENT_STATES } from "../../../components/CommentStateMark";
import { EmptyState } from "../../../components/EmptyState";
import { useNow } from "../../../components/useNow";
import { useReviewing } from "../../../stores/reviewing";
import { colours } from "../../../theme/theme";
import { AskDialog } from "./AskDialog";
import { CommentFiles } from "./CommentFiles";
import { CommentTable } from "./CommentTable";
import { NewLinks } from "./NewLinks";
import { ALL, filtered, standing, type SecretLink } from "./reviewCommands";
import { ReviewRecord } from "./ReviewRecord";
import { t } from "../../../words/words";

const NOTHING: never[] = [];

export function ReviewPage({ project, sheets }: { project: Project; sheets: readonly Sheet[] }) {
  const id = project.id;
  const { data: reviews } = useReviews(id);
  const { data: comments } = useComments(id);
  const { data: issues = NOTHING } = useIssues(id);
  const [query, setQuery] = useSearchParams();
  const [asking, setAsking] = useState(false);
  const [links, setLinks] = useState<readonly SecretLink[]>([]);
  const [wanted, setWanted] = useState(ALL);
  const navigate = useNavigate();
  if (!reviews || !comments) return null;
  const comment = comments.find((c) => c.id === query.get("comment"));
  const review = comment ? undefined : (reviews.find((r) => r.id === query.get("review")) ?? reviews.at(-1));
  const shown = filtered(comments, wanted);
  const toSheet = ({ id: chosen, sheet }: Comment) => {
    useReviewing.setState({ shown: true, comment: chosen });
    void navigate(`/projects/${id}/sheets/${sheet}`);
  };
  const dialogs = (
    <>
      {asking && (
        <AskDialog
          project={id}
          number={(reviews.at(-1)?.number ?? 0) + 1}
          sheets={sheets}
          issues={issues}
          onAsked={(made, secrets) => {
            setAsking(false);
            setLinks(secrets);
            setQuery({ review: made });
          }}
          onClose={() => setAsking(false)}
        />
      )}
      {links.length > 0 && <NewLinks links={links} onClose={() => setLinks([])} />}
    </>
  );
  if (!reviews.length && !comments.length && !issues.length)
    return (
      <>
        <EmptyState text={t("Nobody was asked to review the sheets yet. They need nothing but a browser.")}>
          <Button variant="contained" onClick={() => setAsking(true)}>
            {t("Ask for a review…")}
          </Button>
        </EmptyState>
        {dialogs}
      </>
    );
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: "flex" }}>
      <Box
        component="nav"
        aria-label={t("Reviews")}
        sx={{
          width: 212,
          flexShrink: 0,
          display: "flex",
          flexDirection: "column",
          bgcolor: colours.sandLight,
          borderRight: `1px solid ${colours.sandDeep}`,
        }}
      >
        <Box sx={{ p: 1.25 }}>
          <Button variant="contained" fullWidth onClick={() => setAsking(true)}>
            {t("Ask for a review…")}
          </Button>
        </Box>
        <Box sx={{ flex: 1, minHeight: 0, overflowY: "auto" }}>
          {reviews.toReversed().map((each) => (
            <OneReview
              key={each.id}
              review={each}
              open={comments.filter((c) => c.review === each.id && c.state === "open").length}
              chosen={each.id === review?.id}
              onChoose={() => setQuery({ review: each.id }, { replace: true })}
            />
          ))}
        </Box>
        <CommentFiles project={id} />
      </Box>
      <Box sx={{ flex: 1, minWidth: 0, display: "flex", flexDirection: "column", bgcolor: colours.sandPale }}>
        <Filters
          comments={comments}
          reviews={reviews}
          wanted={wanted}
          shown={shown.length}
          onChange={setWanted}
        />
        {comments.length ? (
          <CommentTable
            comments={shown}
            chosen={comment?.id ?? null}
            onChoose={(chosen) => setQuery({ comment: chosen }, { replace: true })}
          />
        ) : (
          <Box sx={{ p: 2, fontSize: 13.5, color: "text.secondary" }}>{t("Nothing was said yet.")}</Box>
        )}
      </Box>
      <Box
        component="aside"
        aria-label={
          comment ? t("Comment {number}", { number: comment.number }) : (review?.name ?? t("Review"))
        }
        sx={{
          width: 358,
          flexShrink: 0,
          overflowY: "auto",
          p: 1.75,
          fontSize: 13,
          lineHeight: 1.45,
          bgcolor: "background.default",
          borderLeft: `1px solid ${colours.sandDeep}`,
        }}
      >
        {comment && (
          <>
            <Box sx={{ display: "flex", alignItems: "center", mb: 1 }}>
              <Box sx={{ flex: 1, fontSize: 12.5, color: "text.secondary" }}>
                {comment.sheet_number}
                {comment.revision && t(", as it was in {revision}", { revision: comment.revision })}
              </Box>
              {comment.sheet && (
                <Button variant="outlined" onClick={() => toSheet(comment)}>
                  {t("Show on the sheet")}
                </Button>
              )}
            </Box>
            <CommentPanel comment={comment} />
          </>
        )}
        {review && <ReviewRecord key={review.id} review={review} onLinks={setLinks} />}
      </Box>
      {dialogs}
    </Box>
  );
}

interface OneProps {
  review: Review;
  open: number;
  chosen: boolean;
  onChoose: () => void;
}

function OneReview({ review, open, chosen, onChoose }: OneProps) {
  const now = useNow();
  return (
    <ButtonBase
      aria-current={chosen ? "true" : undefined}
      onClick={onChoose}
      sx={{
        display: "block",
        width: "100%",
        textAlign: "left",
        px: 1.5,
        py: 0.75,
        borderTop: `1px solid ${colours.sandDeep}`,
        bgcolor: chosen ? colours.rustPale : "transparent",
        "&:hover": { bgcolor: chosen ? colours.rustPale : colours.sandPale },
      }}
    >
      <Box sx={{ fontSize: 13, fontWeight: 650 }}>{review.name}</Box>
      <Box sx={{ fontSize: 12, color: "text.secondary" }}>
        {standing(review, now)},{" "}
        {open === 0 ? t("nothing waits") : open === 1 ? t("1 waits") : t("{open} wait", { open })}
      </Box>
    </ButtonBase>
  );
}

interface FilterProps {
  comments: readonly Comment[];
  reviews: readonly Review[];
  wanted: typeof ALL;
  shown: number;
  onChange: (wanted: typeof ALL) => void;
}

function Filters({ comments, reviews, wanted, shown, onChange }: FilterProps) {
  const among = (values: readonly string[]) =>
    [...new Set(values.filter(Boolean))].toSorted().map((value) => [value, value] as const);
  const choice = (key: keyof typeof ALL, label: string, choices: readonly (readonly [string, string])[]) => (
    <ChoiceField
      label={label}
      width={112}
      value={wanted[key]}
      choices={[["", t("All")], ...choices]}
      onChoose={(value) => onChange({ ...wanted, [key]: value })}
    />
  );
  return (
    <Box
      role="search"
      aria-label={t("Which comments")}
      sx={{
        display: "flex",
        gap: 0.75,
        alignItems: "flex-end",
        flexWrap: "wrap",
        px: 1.5,
        py: 0.75,
        borderBottom: `1px solid ${colours.sandDeep}`,
        bgcolor: colours.sandLight,
      }}
    >
      <Box sx={{ flex: "1 1 120px" }}>
        <Box sx={{ fontSize: 11, lineHeight: "15px", color: "text.secondary" }}>{t("Find")}</Box>
        <OutlinedInput
          size="small"
          fullWidth
          value={wanted.text}
          onChange={(event) => onChange({ ...wanted, text: event.target.value })}
          inputProps={{ "aria-label": t("Find"), type: "search" }}
        />
      </Box>
      {choice("state", t("State"), Object.entries(COMMENT_STATES))}
      {choice("sheet", t("Sheet"), among(comments.map((c) => c.sheet_number)))}
      {choice(
        "review",
        t("Review"),
        reviews.map((r) => [r.id, r.name] as const),
      )}
      {choice("assigned", t("Assigned to"), among(comments.map((c) => c.assigned)))}
      <Box role="status" sx={{ fontSize: 12, color: "text.secondary", pb: 0.75, whiteSpace: "nowrap" }}>
        {t("{shown} of {count}", { shown, count: comments.length })}
      </Box>
    </Box>
  );
}
