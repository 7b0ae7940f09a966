/**
 * The ledge of the Issue station: the plot settings, in the order in which they are decided, and what is made
 * with them.
 */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useState } from "react";
import type { DeviceKind, PlotForm, Project, Sheet } from "../../api/client";
import { duplicate, remove, rename } from "../../sync/namedRows";
import { ChoiceField } from "../../components/ChoiceField";
import { choicesOf } from "../../components/choices";
import { FigureField } from "../../components/FigureField";
import { Buttons, Group, Ledge, Rows } from "../../components/Ledge";
import { PlotFields } from "./PlotFields";
import { applyTo, usersOf, type Settings } from "./plotCommands";
import { t } from "../../words/words";

export type Form = PlotForm;
const FORMS = choicesOf<Form>({ pdf: "PDF", dxf: "DXF", svg: "SVG", png: "PNG" });

interface Props {
  project: Project;
  known: readonly Settings[];
  devices: readonly DeviceKind[];
  /** The settings for all sheets; null where each has its own. */
  settings: Settings | null;
  chosen: readonly Sheet[];
  /** Whether nothing can be plotted so. */
  blocked: boolean;
  onSettings: (key: string | null) => void;
  onMake: (form: Form) => void;
  /** Whether what is shown is not what would be sent. */
  stale: boolean;
  onSend: () => void;
}

export function PlotLedge({
  project,
  known,
  devices,
  settings,
  chosen,
  blocked,
  onSettings,
  onMake,
  stale,
  onSend,
}: Props) {
  const [form, setForm] = useState<Form>("pdf");
  const keys = settings ? [settings.key] : chosen.map((s) => s.plot_settings);
  const prints =
    keys.length > 0 &&
    keys.every((key) => devices.find((d) => d.key === known.find((k) => k.key === key)?.spec.device)?.prints);
  return (
    <Ledge label={t("Ledge: plot settings")}>
      <Naming project={project} known={known} settings={settings} chosen={chosen} onSettings={onSettings} />
      {settings ? (
        <PlotFields settings={settings} devices={devices} project={project.id} />
      ) : (
        <Box sx={{ pt: 2.75, maxWidth: 430, fontSize: 12.5, lineHeight: 1.4, color: "text.secondary" }}>
          {t(
            "Each sheet is plotted with its own settings, shown beside it on the left. Choose " +
              "settings here to plot all sheets alike, or to apply them to sheets.",
          )}
        </Box>
      )}
      <Box sx={{ ml: "auto", pt: "5px" }}>
        <Rows>
          <Box sx={{ display: "flex", gap: 0.5, alignItems: "flex-end", ml: "auto" }}>
            <ChoiceField
              label={t("File")}
              width={74}
              value={form}
              choices={FORMS}
              onChoose={(value) => setForm(value as Form)}
            />
            <Tooltip
              title={
                form === "pdf"
                  ? t("The exact pages, before they are downloaded")
                  : t("Plot in the background")
              }
            >
              <span>
                <Button
                  variant="contained"
                  disabled={blocked}
                  onClick={() => onMake(form)}
                  sx={{ width: 92 }}
                >
                  {form === "pdf" ? t("Preview") : t("Make {form}", { form: form.toUpperCase() })}
                </Button>
              </span>
            </Tooltip>
          </Box>
          <Box sx={{ display: "flex", justifyContent: "flex-end", width: "100%", pt: "15px" }}>
            <Tooltip
              title={
                stale
                  ? t("Preview again first: sheets or settings have changed since")
                  : prints
                    ? t("Print the ticked sheets")
                    : t("Choose plot settings with a device that prints")
              }
            >
              <span>
                <Button variant="outlined" disabled={blocked || stale || !prints} onClick={onSend}>
                  {t("Send to the device")}
                </Button>
              </span>
            </Tooltip>
          </Box>
        </Rows>
      </Box>
    </Ledge>
  );
}

/** Which settings, and what is done with them as a whole. */
function Naming({
  project,
  known,
  settings,
  chosen,
  onSettings,
}: Pick<Props, "project" | "known" | "settings" | "chosen" | "onSettings">) {
  const own = settings?.own;
  const users = settings ? usersOf(project, settings.key) : [];
  const slim = { minWidth: 0, px: 0.75 };
  return (
    <Group name={t("Plot settings")}>
      <Rows>
        <Box sx={{ display: "flex", gap: 0.5, alignItems: "flex-end" }}>
          <ChoiceField
            label={t("For all of these sheets")}
            width={own ? 162 : 190}
            value={settings?.key ?? ""}
            choices={[["", t("Each sheet’s own")], ...known.map((k) => [k.key, k.name] as const)]}
            onChoose={(key) => onSettings(key || null)}
          />
          {own && (
            <FigureField
              label={t("Name")}
              width={150}
              value={own.name}
              onCommit={(name) => name && void rename("plot_settings", own, name)}
            />
          )}
        </Box>
        <Buttons>
          {settings && (
            <>
              <Button
                variant={own ? "outlined" : "contained"}
                sx={slim}
                onClick={() => onSettings(duplicate("plot_settings", project.id, settings))}
              >
                {own ? t("Duplicate") : t("Make a copy")}
              </Button>
              <Tooltip title={t("Plot the ticked sheets with these settings from now on")}>
                <span>
                  <Button
                    variant="outlined"
                    sx={slim}
                    disabled={!chosen.length || chosen.every((s) => s.plot_settings === settings.key)}
                    onClick={() => void applyTo(project, settings, chosen)}
                  >
                    {t("Apply to {which}", {
                      which: chosen.length === 1 ? chosen[0]?.number : chosen.length,
                    })}
                  </Button>
                </span>
              </Tooltip>
              {own && (
                <Tooltip
                  title={
                    users.length
                      ? t("Of {number}: choose others for them first", {
                          number: users.map((s) => s.number).join(", "),
                        })
                      : t("No sheet is plotted with them")
                  }
                >
                  <span>
                    <Button
                      sx={slim}
                      disabled={users.length > 0}
                      onClick={() => {
                        onSettings(null);
                        void remove("plot_settings", own);
                      }}
                    >
                      {t("Delete")}
                    </Button>
                  </span>
                </Tooltip>
              )}
            </>
          )}
        </Buttons>
      </Rows>
    </Group>
  );
}
