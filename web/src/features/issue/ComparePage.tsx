/** Comparing two states of sheets: over each other, side by side or swept across, and as a list. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useEffectEvent, useMemo, useState } from "react";
import { useSearchParams } from "react-router-dom";
import { api, data, type Difference, type Project, type Sheet } from "../../api/client";
import { useAnnotations } from "../../api/annotations";
import { useComparison, useDayStates, useIssues } from "../../api/issues";
import { useViewports } from "../../api/sheets";
import { ChoiceField } from "../../components/ChoiceField";
import { PlotProgress } from "../../components/PlotProgress";
import { ToggleButton } from "../../components/ToggleButton";
import { notify, notifyError } from "../../stores/notices";
import { afterWrites } from "../../sync/rows";
import { colours } from "../../theme/theme";
import { ComparedPictures, type Mode } from "./ComparedPictures";
import { named, statesOf } from "./comparedStates";
import { DifferenceList } from "./DifferenceList";
import { clouded, cloudsAbout } from "./issueCommands";
import { t } from "../../words/words";

const NOTHING: never[] = [];
const MODES: readonly (readonly [Mode, string, string])[] = [
  ["over", t("Over each other"), t("What has gone in dashes, what has come in wide lines")],
  ["beside", t("Side by side"), t("Both, moved and zoomed together")],
  ["swept", t("Swept across"), t("The older on the left of a line that is dragged")],
];

interface Props {
  project: Project;
  sheets: readonly Sheet[];
}

export function ComparePage({ project, sheets }: Props) {
  const id = project.id;
  const { data: issues = NOTHING } = useIssues(id);
  const { data: viewports = NOTHING } = useViewports(id);
  const { isSuccess: piecesKnown } = useAnnotations(id);
  const [query, setQuery] = useSearchParams();
  const [mode, setMode] = useState<Mode>("over");
  const [ignoreMoves, setIgnoreMoves] = useState(true);
  const [chosen, setChosen] = useState<Difference | null>(null);
  const [made, setMade] = useState<string | null>(null);
  const { data: days = NOTHING } = useDayStates(id);
  const states = useMemo(() => statesOf(issues, days, sheets), [issues, days, sheets]);
  const last = sheets[0]?.id ?? "";
  const next = query.get("new") ?? last;
  const old = query.get("old") ?? states.find((s) => s.sheet === next && s.kind === "issued")?.key ?? "";
  const choose = (side: "old" | "new", key: string) => {
    setQuery({ old, new: next, [side]: key }, { replace: true });
    setChosen(null);
  };
  const [before, after] = [states.find((s) => s.key === old), states.find((s) => s.key === next)];
  const wanted = before && after ? `${before.key} ${after.key} ${ignoreMoves}` : "";
  const [again, setAgain] = useState(0);
  // The states themselves change with every answer; which two are wanted does not.
  const compare = useEffectEvent(() => {
    if (!before || !after) return undefined;
    const body = {
      [`old_${before.kind}`]: before.key,
      [`new_${after.kind}`]: after.key,
      ignore_moves: ignoreMoves,
    };
    let gone = false;
    afterWrites(() => data(api.POST("/api/comparisons/", { body }))).then(
      (row) => !gone && setMade(row.id),
      notifyError,
    );
    return () => {
      gone = true;
    };
  });
  useEffect(() => compare(), [wanted, again]);
  const { data: comparison } = useComparison(made);
  const done = comparison?.job.state === "done";
  const sheet = after?.kind === "sheet" ? sheets.find((s) => s.id === after.key) : undefined;
  const cloud = async () => {
    if (!sheet || !comparison) return;
    const many = clouded(comparison.differences).length;
    if (await cloudsAbout(id, sheet, viewports, comparison.differences))
      notify(
        t("{which} on {number}", {
          which: many === 1 ? t("1 cloud") : t("{many} clouds", { many }),
          number: sheet.number,
        }),
      );
  };
  return (
    <>
      <Box
        sx={{
          display: "flex",
          gap: 1,
          alignItems: "flex-end",
          flexWrap: "wrap",
          px: 2,
          py: 1,
          bgcolor: "background.default",
          borderBottom: `1px solid ${colours.sandDeep}`,
        }}
      >
        <ChoiceField
          label={t("Older state")}
          width="min(300px, 22vw)"
          value={before?.key ?? ""}
          choices={[...(before ? [] : [["", t("Choose a state")] as const]), ...states.map(named)]}
          onChoose={(key) => choose("old", key)}
        />
        <ChoiceField
          label={t("Newer state")}
          width="min(300px, 22vw)"
          value={after?.key ?? ""}
          choices={states.map(named)}
          onChoose={(key) => choose("new", key)}
        />
        <Box role="group" aria-label={t("How they are shown")} sx={{ display: "flex", gap: 0.5, ml: 1 }}>
          {MODES.map(([key, name, tip]) => (
            <ToggleButton key={key} on={mode === key} name={name} tip={tip} onToggle={() => setMode(key)} />
          ))}
        </Box>
        <ToggleButton
          on={ignoreMoves}
          name={t("Ignore moves")}
          tip={t("What only moved on the paper as a whole is the same")}
          onToggle={() => setIgnoreMoves(!ignoreMoves)}
        />
        <Box sx={{ ml: "auto", display: "flex", gap: 0.5 }}>
          <Button variant="outlined" disabled={!wanted} onClick={() => setAgain((n) => n + 1)}>
            {t("Compare again")}
          </Button>
          <Button
            variant="outlined"
            component="a"
            href={done ? `/api/comparisons/${comparison.id}/picture/?which=printed` : undefined}
            disabled={!done}
            download
          >
            {t("Download PDF")}
          </Button>
        </Box>
      </Box>
      <Box sx={{ flex: 1, minHeight: 0, display: "flex" }}>
        <DifferenceList
          differences={done ? comparison.differences : null}
          empty={
            wanted
              ? ""
              : issues.length
                ? t("Choose two states.")
                : t("Nothing has been issued yet: two sheets can be compared as they are now.")
          }
          chosen={chosen}
          onChoose={setChosen}
        >
          {sheet && (
            <Button
              variant="contained"
              fullWidth
              disabled={!done || !piecesKnown || !clouded(comparison.differences).length}
              onClick={() => void cloud()}
            >
              {t("Draw clouds on {number}", { number: sheet.number })}
            </Button>
          )}
        </DifferenceList>
        {comparison && !done && (
          <Box sx={{ flex: 1 }}>
            <PlotProgress job={comparison.job} problem="" cancelled={t("The comparison was cancelled.")} />
          </Box>
        )}
        {done && <ComparedPictures comparison={comparison} mode={mode} shown={chosen?.box ?? null} />}
      </Box>
    </>
  );
}
