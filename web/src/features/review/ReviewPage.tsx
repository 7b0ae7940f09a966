/** The page behind the link of a review: the sheets, and what is said of them. It needs no account. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useMemo, useState } from "react";
import { useParams } from "react-router-dom";
import type { LookedAt, Mark, MarkKind } from "../../api/client";
import { useMoments } from "../../components/moments";
import { Wordmark } from "../../components/Wordmark";
import { colours, ONE_LINE } from "../../theme/theme";
import { MarkTools } from "./MarkTools";
import {
  keepDraft,
  keptDraft,
  pdfAddress,
  rememberedName,
  useReviewed,
  useComments,
  type Draft,
} from "./reviewed";
import { OneComment, CommentList } from "./CommentList";
import { NewComment } from "./NewComment";
import { SheetViewer } from "./SheetViewer";
import { EnterWord, Refused } from "./EnterWord";
import { t } from "../../words/words";

const NOTHING: never[] = [];

export function ReviewPage() {
  const { secret = "" } = useParams();
  const reviewed = useReviewed(secret);
  if (reviewed.isPending) return null;
  if (reviewed.error) return <Refused message={reviewed.error.message} />;
  if (reviewed.data.locked) return <EnterWord secret={secret} review={reviewed.data} />;
  return <Inside secret={secret} review={reviewed.data} />;
}

function Inside({ secret, review }: { secret: string; review: LookedAt }) {
  const { dayOf } = useMoments();
  const narrow = useMediaQuery("(max-width: 760px)");
  const { data: all = NOTHING } = useComments(secret, true);
  const [draft, setDraft] = useState<Draft | null>(() => keptDraft(secret));
  const [sheetId, setSheetId] = useState(draft?.sheet ?? "");
  const [tool, setTool] = useState<MarkKind | null>(null);
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [listOpen, setListOpen] = useState(false);
  const sheet = review.sheets.find((each) => each.id === sheetId) ?? review.sheets[0];
  const said = useMemo(() => all.filter((comment) => comment.reviewed === sheet?.id), [all, sheet]);
  const chosen = said.find((comment) => comment.id === chosenId) ?? null;
  if (!sheet) return <Refused message={t("This review has no sheets.")} />;

  const change = (next: Draft | null) => {
    setDraft(next);
    keepDraft(secret, next);
  };
  const begin = (marks: Mark[]) =>
    change(
      draft?.sheet === sheet.id
        ? { ...draft, marks: [...draft.marks, ...marks] }
        : { sheet: sheet.id, marks, text: "", author: rememberedName() },
    );
  const draw = (mark: Mark) => {
    setChosenId(null);
    setListOpen(true);
    begin([mark]);
    // Of points and words there is seldom more than one; of the others often.
    if (mark.kind === "point" || mark.kind === "text") setTool(null);
  };
  const choose = (id: string) => {
    setChosenId(id);
    setListOpen(true);
  };
  const writing = draft && draft.sheet === sheet.id;
  const panelOpen = !narrow || listOpen;
  const counts = (id: string) =>
    all.filter((comment) => comment.reviewed === id && comment.state === "open").length;
  return (
    <Box sx={{ height: "100%", display: "flex", flexDirection: "column" }}>
      <Box
        component="header"
        sx={{
          display: "flex",
          alignItems: "center",
          gap: 1.5,
          px: 1.5,
          minHeight: 44,
          bgcolor: colours.sandLight,
          borderBottom: `1px solid ${colours.sandShade}`,
        }}
      >
        {!narrow && <Wordmark size={18} />}
        <Box sx={{ minWidth: 0, flex: 1 }}>
          <Box component="h1" sx={{ m: 0, fontSize: 14, fontWeight: 650, ...ONE_LINE }}>
            {review.name}
          </Box>
          <Box sx={{ fontSize: 11.5, color: "text.secondary", ...ONE_LINE }}>
            {t("{project}, asked by {askedBy}, open until {until}", {
              project: review.project,
              askedBy: review.asked_by,
              until: dayOf(review.until),
            })}
          </Box>
        </Box>
        <TextField
          select
          size="small"
          value={sheet.id}
          onChange={(event) => {
            setSheetId(event.target.value);
            setChosenId(null);
          }}
          slotProps={{ select: { SelectDisplayProps: { "aria-label": t("Sheet") } } }}
          sx={{ width: narrow ? 150 : 300, my: 0.75 }}
        >
          {review.sheets.map((each) => (
            <MenuItem key={each.id} value={each.id} sx={{ gap: 1, fontSize: 13 }}>
              <b>{each.number}</b> {each.title}
              {counts(each.id) > 0 && t(" ({id} open)", { id: counts(each.id) })}
            </MenuItem>
          ))}
        </TextField>
        {!narrow && (
          <Button variant="outlined" href={pdfAddress(secret)} download>
            {t("Save as PDF")}
          </Button>
        )}
      </Box>
      <Box component="main" sx={{ flex: 1, minHeight: 0, display: "flex", position: "relative" }}>
        <SheetViewer
          key={sheet.id}
          secret={secret}
          sheet={sheet}
          said={said}
          chosen={chosen}
          tool={tool}
          draft={writing ? draft : null}
          onChoose={choose}
          onDraw={draw}
        >
          <MarkTools tool={tool} onTool={setTool} />
        </SheetViewer>
        {panelOpen && (
          <Box
            component="aside"
            aria-label={t("What is said of this sheet")}
            sx={{
              p: 1.75,
              overflowY: "auto",
              bgcolor: colours.sandLight,
              ...(narrow
                ? {
                    position: "absolute",
                    insetInline: 0,
                    bottom: 0,
                    maxHeight: "62%",
                    zIndex: 4,
                    borderTop: `1px solid ${colours.sandShade}`,
                    boxShadow: "0 -4px 14px rgba(74, 60, 34, 0.25)",
                  }
                : { width: 330, flexShrink: 0, borderLeft: `1px solid ${colours.sandShade}` }),
            }}
          >
            {narrow && (
              <Box sx={{ display: "flex", justifyContent: "flex-end", mt: -1, mr: -1 }}>
                <Button onClick={() => setListOpen(false)}>{t("Close")}</Button>
              </Box>
            )}
            {writing ? (
              <>
                <Heading>{t("New comment on {number}", { number: sheet.number })}</Heading>
                <NewComment
                  secret={secret}
                  person={review.person}
                  draft={draft}
                  onChange={change}
                  onSent={(id) => {
                    change(null);
                    setTool(null);
                    setChosenId(id);
                  }}
                  onCancel={() => {
                    change(null);
                    setTool(null);
                    setListOpen(false);
                  }}
                />
              </>
            ) : chosen ? (
              <OneComment
                secret={secret}
                person={review.person}
                comment={chosen}
                onBack={() => setChosenId(null)}
              />
            ) : (
              <>
                {review.message && (
                  <Box sx={{ fontSize: 13, mb: 1.5, whiteSpace: "pre-wrap", overflowWrap: "anywhere" }}>
                    {review.message}
                  </Box>
                )}
                <Heading>{t("Comments on {number}", { number: sheet.number })}</Heading>
                <CommentList said={said} onChoose={choose} />
                <Button variant="outlined" onClick={() => begin([])} sx={{ mt: 1.5 }}>
                  {t("Comment on the whole sheet")}
                </Button>
                {narrow && (
                  <Button href={pdfAddress(secret)} download sx={{ mt: 1.5, ml: 1 }}>
                    {t("Save as PDF")}
                  </Button>
                )}
              </>
            )}
          </Box>
        )}
        {narrow && !listOpen && (
          <Button
            variant="contained"
            onClick={() => setListOpen(true)}
            sx={{ position: "absolute", right: 10, top: 10, zIndex: 3, minHeight: 40 }}
          >
            {t("Comments ({count})", { count: said.length })}
          </Button>
        )}
      </Box>
    </Box>
  );
}

function Heading({ children }: { children: React.ReactNode }) {
  return (
    <Box component="h2" sx={{ m: 0, mb: 1, fontSize: 14, fontWeight: 650 }}>
      {children}
    </Box>
  );
}
