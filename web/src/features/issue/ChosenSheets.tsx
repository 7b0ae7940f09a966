/** The register with a tick for each sheet that is chosen, and the lists that are kept of such choices. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useRef, useState } from "react";
import type { Project, Sheet, SheetList } from "../../api/client";
import { ChoiceField } from "../../components/ChoiceField";
import { colours } from "../../theme/theme";
import { saveList, removeList } from "./plotCommands";
import { t } from "../../words/words";

/** Which sheets of a project are chosen. */
export interface Choice {
  project: Project;
  /** In register order. */
  sheets: readonly Sheet[];
  /** Those that are not chosen: a new sheet is, until somebody leaves it out. */
  without: ReadonlySet<string>;
  onChoose: (without: ReadonlySet<string>) => void;
}

interface Props extends Choice {
  /** What the list is called, and what is done with those that are ticked. */
  name: string;
  verb: string;
  lists: readonly SheetList[];
  /** What is to be known of a sheet, in a line. */
  about: (sheet: Sheet) => string;
  /** What does not go together, and of which sheet. */
  conflicts: readonly { sheet: string; message: string }[];
}

export function ChosenSheets({
  name,
  verb,
  project,
  sheets,
  lists,
  without,
  about,
  conflicts,
  onChoose,
}: Props) {
  const last = useRef<number | null>(null);
  const [naming, setNaming] = useState<string | null>(null);
  const chosen = sheets.filter((s) => !without.has(s.id));
  const list = lists.find(
    (l) => l.sheets.length === chosen.length && chosen.every((s) => l.sheets.includes(s.id)),
  );
  const now = chosen.length === sheets.length ? "all" : (list?.id ?? "");

  const tick = (k: number, on: boolean, range: boolean) => {
    const next = new Set(without);
    const from = range && last.current !== null ? last.current : k;
    for (const sheet of sheets.slice(Math.min(from, k), Math.max(from, k) + 1)) {
      if (on) next.delete(sheet.id);
      else next.add(sheet.id);
    }
    last.current = k;
    onChoose(next);
  };
  const choose = (key: string) => {
    const wanted = lists.find((l) => l.id === key)?.sheets;
    if (key) onChoose(new Set(sheets.filter((s) => wanted && !wanted.includes(s.id)).map((s) => s.id)));
  };
  const save = () => {
    if (naming?.trim())
      saveList(
        project,
        naming.trim(),
        chosen.map((s) => s.id),
      );
    setNaming(null);
  };
  return (
    <Box
      component="nav"
      aria-label={name}
      sx={{
        width: 252,
        flexShrink: 0,
        display: "flex",
        flexDirection: "column",
        bgcolor: "background.default",
      }}
    >
      <Box
        sx={{
          px: 1.5,
          pt: 1.25,
          pb: 0.5,
          display: "flex",
          alignItems: "baseline",
          justifyContent: "space-between",
        }}
      >
        <Box component="h2" sx={{ m: 0, fontSize: 13, fontWeight: 650 }}>
          {name}
        </Box>
        <Box role="status" sx={{ fontSize: 11.5, color: "text.secondary" }}>
          {t("{count} of {count2}", { count: chosen.length, count2: sheets.length })}
        </Box>
      </Box>
      <Box sx={{ px: 1.5, pb: 1, display: "flex", gap: 0.5, alignItems: "flex-end" }}>
        {naming === null ? (
          <>
            <ChoiceField
              label={t("List")}
              width={146}
              value={now}
              choices={[
                ...(now ? [] : [["", t("Chosen by hand")] as const]),
                ["all", t("All sheets")],
                ...lists.map((l) => [l.id, l.name] as const),
              ]}
              onChoose={choose}
            />
            {now === "" && chosen.length > 0 && (
              <Button variant="outlined" onClick={() => setNaming("")} sx={{ minWidth: 0, px: 1 }}>
                {t("Save…")}
              </Button>
            )}
            {list && now === list.id && (
              <Button onClick={() => void removeList(list)} sx={{ minWidth: 0, px: 1 }}>
                {t("Delete")}
              </Button>
            )}
          </>
        ) : (
          <>
            <OutlinedInput
              size="small"
              autoFocus
              value={naming}
              placeholder={t("Name of the list")}
              inputProps={{ "aria-label": t("Name of the list"), maxLength: 100 }}
              onChange={(event) => setNaming(event.target.value)}
              onKeyDown={(event) => {
                if (event.key === "Enter") save();
                if (event.key === "Escape") setNaming(null);
              }}
              sx={{ flex: 1 }}
            />
            <Button variant="outlined" onClick={save} sx={{ minWidth: 0, px: 1 }}>
              {t("Save")}
            </Button>
          </>
        )}
      </Box>
      <Box sx={{ flex: 1, overflowY: "auto", px: 0.5, pb: 1 }}>
        {sheets.map((sheet, k) => {
          const on = !without.has(sheet.id);
          return (
            <Box
              key={sheet.id}
              component="label"
              sx={{
                display: "flex",
                alignItems: "flex-start",
                gap: 0.5,
                px: 0.75,
                py: 0.4,
                borderRadius: 1,
                cursor: "pointer",
                "&:hover": { bgcolor: colours.sandPale },
              }}
            >
              <Checkbox
                size="small"
                sx={{ p: 0.35 }}
                checked={on}
                slotProps={{ input: { "aria-label": `${verb} ${sheet.number} ${sheet.title}` } }}
                onClick={(event) => tick(k, !on, event.shiftKey)}
                onChange={() => undefined}
              />
              <Box sx={{ minWidth: 0, flex: 1, opacity: on ? 1 : 0.6 }}>
                <Box sx={{ fontSize: 12.5, display: "flex", gap: 0.75, lineHeight: 1.5 }}>
                  <Box component="span" sx={{ fontWeight: 650, whiteSpace: "nowrap" }}>
                    {sheet.number}
                  </Box>
                  <Box
                    component="span"
                    title={sheet.title}
                    sx={{ overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}
                  >
                    {sheet.title}
                  </Box>
                </Box>
                <Box sx={{ fontSize: 11.5, color: "text.secondary", lineHeight: 1.35 }}>{about(sheet)}</Box>
                {on &&
                  conflicts
                    .filter((c) => c.sheet === sheet.id)
                    .map(({ message }) => (
                      <Box
                        key={message}
                        sx={{ fontSize: 11.5, color: colours.rust, fontWeight: 600, lineHeight: 1.35 }}
                      >
                        {message}
                      </Box>
                    ))}
              </Box>
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
