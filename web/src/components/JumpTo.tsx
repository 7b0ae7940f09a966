/** Ctrl + K: to any sheet, view, station or command by typing a part of its name. */
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Dialog from "@mui/material/Dialog";
import TextField from "@mui/material/TextField";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router-dom";
import type { Project } from "../api/client";
import { useSheets } from "../api/sheets";
import { useViews } from "../api/views";
import { useCommands } from "../stores/commands";
import { STATIONS } from "./Header";
import { foundAmong, type Jump } from "./jumps";
import { t } from "../words/words";

const NOTHING: never[] = [];
/** No more are listed at once. */
const MAX_SHOWN = 60;
const WHAT = t("Go to a sheet, view, station or command");

export function JumpTo({ project }: { project: Project }) {
  const open = useCommands((s) => s.jumping);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "k" || event.shiftKey) return;
      event.preventDefault();
      useCommands.setState((s) => ({ jumping: !s.jumping }));
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);
  return open ? (
    <Jumps project={project.id} onClose={() => useCommands.setState({ jumping: false })} />
  ) : null;
}

function Jumps({ project, onClose }: { project: string; onClose: () => void }) {
  const navigate = useNavigate();
  const { data: sheets = NOTHING } = useSheets(project);
  const { data: views = NOTHING } = useViews(project);
  const commands = useCommands((s) => s.commands);
  const [typed, setTyped] = useState("");
  const to = (path: string) => () => void navigate(`/projects/${project}/${path}`);
  const jumps: Jump[] = [
    ...sheets
      .toSorted((a, b) => a.position - b.position)
      .map((s) => ({ kind: "Sheet", name: `${s.number} ${s.title}`.trim(), go: to(`sheets/${s.id}`) })),
    ...views.map((v) => ({ kind: "View", name: v.name, go: to(`views/${v.id}`) })),
    ...STATIONS.map(([key, name]) => ({ kind: "Station", name, go: to(key) })),
    ...commands.map(([name, go]) => ({ kind: "Command", name, go })),
  ];
  return (
    <Dialog
      open
      onClose={onClose}
      transitionDuration={0}
      slotProps={{
        paper: {
          "aria-label": t("Go to"),
          sx: { position: "absolute", top: 72, m: 0, width: 520, maxHeight: 480 },
        },
      }}
    >
      <Autocomplete<Jump>
        open
        disablePortal
        autoHighlight
        forcePopupIcon={false}
        options={jumps}
        inputValue={typed}
        onInputChange={(_, now) => setTyped(now)}
        filterOptions={(all) => foundAmong(all, typed).slice(0, MAX_SHOWN)}
        getOptionLabel={(jump) => jump.name}
        getOptionKey={(jump) => `${jump.kind} ${jump.name}`}
        noOptionsText={t("Nothing has this name.")}
        onChange={(_, jump) => {
          if (!jump) return;
          onClose();
          jump.go();
        }}
        onClose={(_, why) => why === "escape" && onClose()}
        renderOption={({ key, ...props }, jump) => (
          <Box component="li" key={key} {...props} sx={{ display: "flex", gap: 1.5, fontSize: 13 }}>
            <Box component="span" sx={{ width: 72, color: "text.secondary", fontSize: 12 }}>
              {jump.kind}
            </Box>
            <Box component="span" sx={{ flex: 1 }}>
              {jump.name}
            </Box>
          </Box>
        )}
        renderInput={(params) => (
          <TextField
            {...params}
            autoFocus
            placeholder={WHAT}
            slotProps={{
              ...params.slotProps,
              htmlInput: { ...params.slotProps.htmlInput, "aria-label": WHAT },
            }}
            sx={{ p: 1.25 }}
          />
        )}
        slotProps={{
          popper: {
            sx: { position: "static !important", transform: "none !important", width: "100% !important" },
          },
          paper: { elevation: 0, square: true, sx: { borderTop: 1, borderColor: "divider" } },
          listbox: { sx: { maxHeight: 360 } },
        }}
      />
    </Dialog>
  );
}
