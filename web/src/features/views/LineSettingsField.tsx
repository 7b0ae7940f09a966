/** Named line settings: one is given to what is chosen, the present one is kept by name, one is deleted. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { NameDialog } from "../../components/NameDialog";
import { useState } from "react";
import type { LineSettings, NamedLineSettings } from "../../api/client";
import { commit } from "../../sync/commands";
import { useLineSettings } from "../../api/views";
import { deleting, making, newId } from "../../sync/rows";
import { ChoiceField } from "../../components/ChoiceField";
import { t } from "../../words/words";

/** The usual line settings, written out: what a named one does not say is put back to this. */
const STANDARD: Required<LineSettings> = {
  crease: 20,
  seams: false,
  hidden: false,
  overhead: false,
  outline_above: false,
  beams_above: false,
  below: false,
  opening_windows: false,
  contours: null,
  doors: true,
  stairs: true,
  far: null,
  bands: [],
};
const AS_STANDARD = "standard";
const whole = (settings: LineSettings) => ({ ...STANDARD, ...settings });
const alike = (a: LineSettings, b: LineSettings) => JSON.stringify(whole(a)) === JSON.stringify(whole(b));

interface Props {
  project: string;
  /** Those that there are now; undefined where several differ. */
  settings: LineSettings | undefined;
  onApply: (settings: LineSettings, name: string) => void;
}

export function LineSettingsField({ project, settings, onApply }: Props) {
  const { data: named = [] } = useLineSettings(project);
  const [name, setName] = useState<string | null>(null);
  const now = settings && named.find((n) => alike(n.settings, settings));
  const standard = settings && alike(settings, STANDARD);

  const save = (whole: string) => {
    if (!settings) return;
    const row = { id: newId(), project, name: whole, settings };
    setName(null);
    void commit(project, t("save the line settings {name}", { name: row.name }), [
      making("line_settings", row),
    ]);
  };
  const drop = (row: NamedLineSettings) =>
    commit(project, t("delete the line settings {name}", { name: row.name }), [
      deleting("line_settings", row),
    ]);

  return (
    <Box sx={{ display: "flex", alignItems: "flex-end" }}>
      <ChoiceField
        label={t("Line settings")}
        width={118}
        value={now?.id ?? (standard ? AS_STANDARD : "")}
        choices={[
          ...(now || standard ? [] : [["", settings ? t("Custom") : t("Mixed")] as const]),
          [AS_STANDARD, t("Standard")],
          ...named.map((n) => [n.id, n.name] as const),
        ]}
        onChoose={(id) => {
          const chosen = named.find((n) => n.id === id);
          onApply(whole(chosen?.settings ?? {}), chosen?.name ?? "standard");
        }}
      />
      {now ? (
        <Tooltip title={t("Delete these line settings; views keep their lines as they are")}>
          <Button onClick={() => void drop(now)} sx={{ minWidth: 0, px: 0.75 }}>
            {t("Delete")}
          </Button>
        </Tooltip>
      ) : (
        settings && (
          <Tooltip title={t("Save these line settings by name, to use them for other views")}>
            <Button onClick={() => setName("")} sx={{ minWidth: 0, px: 0.75 }}>
              {t("Save")}
            </Button>
          </Tooltip>
        )
      )}
      <NameDialog
        label={t("Name of the line settings")}
        action={t("Save")}
        name={name}
        onName={setName}
        onDone={save}
      />
    </Box>
  );
}
