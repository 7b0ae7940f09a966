/** The register: the sheets of the set in their order, by series, as pictures or as lines. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import OutlinedInput from "@mui/material/OutlinedInput";
import Tooltip from "@mui/material/Tooltip";
import { memo, useMemo, useRef, useState, type MouseEvent } from "react";
import type { Sheet, Viewport } from "../../api/client";
import type { CommandGroups } from "../../components/CommandItems";
import { LIST } from "../../components/stationLayout";
import { useThoseAt } from "../../components/People";
import { useContextMenu } from "../../components/useContextMenu";
import { useStable } from "../../components/useStable";
import { colours } from "../../theme/theme";
import { useBoard } from "../../stores/board";
import { prefer, usePreferences } from "../../stores/preferences";
import { SeveralSheets } from "./SeveralSheets";
import type { Edits } from "./sheetCommands";
import { chosenBy, isSought, placeAmong, runsOf } from "./registerParts";
import { RegisterRow } from "./RegisterRow";
import type { FindingCounts } from "./useFindings";
import { t } from "../../words/words";

export const REGISTER_WIDTH = 204;
/** What stands in for it until it is there. */
export const EMPTY_LIST = <Box sx={{ ...LIST, width: REGISTER_WIDTH }} />;
const NOTHING: never[] = [];

interface Props {
  sheets: Sheet[];
  viewports: Viewport[];
  /** What is wrong with the numbers of sheets, by their ids. */
  warnings: Record<string, string>;
  /** What the last check has found, by their ids. */
  findings: FindingCounts;
  open: string;
  /** What can be done to a sheet. */
  commandsOf: (sheet: Sheet) => CommandGroups;
  onOpen: (id: string) => void;
  onAdd: () => void;
  onAddSeveral: () => void;
  onMove: (sheet: Sheet, to: number) => void;
  /** Plot some sheets. */
  onPlot: (sheets: string[]) => void;
  edits: Edits;
}

export const Register = memo(function Register(props: Props) {
  const { sheets, viewports, warnings, findings, open, commandsOf, onOpen, onAdd, onAddSeveral, onMove } =
    props;
  const pictured = usePreferences((s) => s.register) === "pictures";
  const thoseAt = useThoseAt();
  const [words, setWords] = useState("");
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  /** The sheet that is dragged, and the one that it would come to lie before; none for the end. */
  const [held, setHeld] = useState<{ id: string; before: string | undefined } | null>(null);
  const { menu, open: openMenu } = useContextMenu();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  /** The sheet that was clicked last, from where a range is chosen. */
  const last = useRef(open);
  const several = sheets.filter((sheet) => chosen.has(sheet.id));
  const found = sheets.filter((sheet) => isSought(sheet, words.trim()));
  const runs = runsOf(found);
  // With one series there is nothing to tell apart.
  const named = new Set(runs.map((run) => run.series)).size > 1;
  const lastShown = found.at(-1)?.id;

  /** The first sheet whose middle is below the pointer. */
  const sheetBelow = (event: { clientY: number; currentTarget: HTMLElement }) =>
    [...event.currentTarget.querySelectorAll<HTMLElement>("[data-sheet]")].find(
      (row) => event.clientY < row.getBoundingClientRect().top + row.clientHeight / 2,
    )?.dataset.sheet;
  const drop = () => {
    const from = sheets.findIndex((s) => s.id === held?.id);
    const sheet = sheets[from];
    if (held && sheet) {
      const to = placeAmong(sheets, held.id, held.before);
      if (to !== from) onMove(sheet, to);
    }
    setHeld(null);
  };
  const press = useStable((sheet: Sheet, event: MouseEvent) => {
    const shown = found.map((s) => s.id);
    const more = event.shiftKey || event.ctrlKey || event.metaKey;
    const from = shown.includes(last.current) && more ? last.current : open;
    setChosen(chosenBy(event, sheet.id, from, shown, chosen));
    if (!event.shiftKey) last.current = sheet.id;
    if (!more) onOpen(sheet.id);
  });
  const hold = useStable((sheet: Sheet | null) => setHeld(sheet && { id: sheet.id, before: sheet.id }));
  const shift = useStable((sheet: Sheet, by: number) => {
    const at = sheets.findIndex((s) => s.id === sheet.id);
    if (sheets[at + by]) onMove(sheet, at + by);
  });
  const showMenu = useStable((sheet: Sheet, event: MouseEvent) => openMenu(event, commandsOf(sheet)));
  const placed = useMemo(() => {
    const on = new Map<string, Viewport[]>();
    for (const v of viewports) on.set(v.sheet, [...(on.get(v.sheet) ?? []), v]);
    return on;
  }, [viewports]);
  const row = (sheet: Sheet) => (
    <RegisterRow
      key={sheet.id}
      sheet={sheet}
      on={placed.get(sheet.id) ?? NOTHING}
      pictured={pictured}
      current={sheet.id === open}
      held={held?.id === sheet.id}
      people={thoseAt(sheet.id)}
      mark={
        !held
          ? null
          : held.before === sheet.id
            ? "before"
            : held.before === undefined && sheet.id === lastShown
              ? "behind"
              : null
      }
      warning={warnings[sheet.id]}
      findings={findings.get(sheet.id)}
      chosen={several.length > 1 && chosen.has(sheet.id)}
      onPress={press}
      onHold={hold}
      onShift={shift}
      onMenu={showMenu}
    />
  );
  return (
    <Box
      component="nav"
      aria-label={t("Register")}
      sx={{
        ...LIST,
        width: REGISTER_WIDTH,
        bgcolor: "background.default",
      }}
    >
      <Box sx={{ pl: 1.5, pr: 0.75, pt: 1, pb: 0.5, display: "flex", alignItems: "center", gap: 0.75 }}>
        <Box component="h2" sx={{ m: 0, fontSize: 13, fontWeight: 650 }}>
          {t("Register")}
        </Box>
        <Box sx={{ fontSize: 11.5, color: "text.secondary", flex: 1, whiteSpace: "nowrap" }}>
          {words.trim()
            ? t("{count} of {count2}", { count: found.length, count2: sheets.length })
            : countOf(sheets.length)}
        </Box>
        <Button
          onClick={() => prefer({ register: pictured ? "lines" : "pictures" })}
          sx={{ minWidth: 0, minHeight: 22, px: 0.75, fontSize: 11.5 }}
        >
          {pictured ? t("As lines") : t("As pictures")}
        </Button>
      </Box>
      <Box sx={{ px: 1, pb: 0.75 }}>
        <OutlinedInput
          size="small"
          fullWidth
          placeholder={t("Find a sheet")}
          value={words}
          onChange={(event) => setWords(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter" && found[0]) onOpen(found[0].id);
            if (event.key !== "Escape") return;
            event.stopPropagation();
            setWords("");
          }}
          inputProps={{ "aria-label": t("Find a sheet"), type: "search" }}
          sx={{ height: 28, fontSize: 12.5 }}
        />
      </Box>
      <Box
        sx={{ flex: 1, overflowY: "auto", px: 1, pb: 1 }}
        onDragOver={(event) => {
          if (!held) return;
          event.preventDefault();
          setHeld({ id: held.id, before: sheetBelow(event) });
        }}
        onDrop={drop}
      >
        {runs.map((run) => {
          const [first] = run.sheets;
          const shut = named && closed.has(run.series) && !words.trim();
          return (
            <Box
              key={first?.id}
              role={named ? "group" : undefined}
              aria-label={named ? nameOf(run.series) : undefined}
            >
              {named && (
                <ButtonBase
                  aria-expanded={!shut}
                  onClick={() =>
                    setClosed((old) => {
                      const now = new Set(old);
                      if (!now.delete(run.series)) now.add(run.series);
                      return now;
                    })
                  }
                  sx={SERIES}
                >
                  <span aria-hidden>{shut ? "▸" : "▾"}</span>
                  {nameOf(run.series)}
                  <Box component="span" sx={{ fontWeight: 400, color: "text.secondary" }}>
                    {run.sheets.length}
                  </Box>
                </ButtonBase>
              )}
              {!shut && run.sheets.map(row)}
            </Box>
          );
        })}
        {sheets.length > 0 && !found.length && (
          <Box sx={{ p: 1, fontSize: 12.5, color: "text.secondary" }}>{t("No sheet has these words.")}</Box>
        )}
      </Box>
      {several.length > 1 && (
        <SeveralSheets
          sheets={several}
          edits={props.edits}
          onPlot={props.onPlot}
          onRelease={() => setChosen(new Set())}
        />
      )}
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, p: 1, borderTop: 1, borderColor: "divider" }}>
        <Tooltip title={t("Show the saved views (V)")}>
          <Button
            variant="contained"
            onClick={() => useBoard.setState({ rackOpen: true })}
            sx={{ flex: "1 0 auto" }}
          >
            {t("Views")}
          </Button>
        </Tooltip>
        <Tooltip title={t("Add a sheet at the end of the register")}>
          <Button variant="outlined" onClick={onAdd} sx={{ flex: "0 1 auto", minWidth: 0, px: 1 }}>
            {t("Add sheet")}
          </Button>
        </Tooltip>
        <Tooltip title={t("Add several sheets, from a list of titles")}>
          <Button
            variant="outlined"
            aria-label={t("Add several sheets")}
            onClick={onAddSeveral}
            sx={{ minWidth: 0, px: 0.75 }}
          >
            …
          </Button>
        </Tooltip>
      </Box>
      {menu}
    </Box>
  );
});

const countOf = (sheets: number) => (sheets === 1 ? t("1 sheet") : t("{count} sheets", { count: sheets }));
const nameOf = (series: string) => (series ? t("Series {series}", { series }) : t("No series"));
const SERIES = {
  display: "flex",
  gap: 0.75,
  alignItems: "baseline",
  width: "100%",
  justifyContent: "flex-start",
  px: 0.75,
  py: 0.5,
  fontSize: 12,
  fontWeight: 650,
  borderRadius: 1,
  "&:hover": { bgcolor: colours.sandPale },
  "&:focus-visible": { outline: `2px solid ${colours.rust}`, outlineOffset: -2 },
} as const;
