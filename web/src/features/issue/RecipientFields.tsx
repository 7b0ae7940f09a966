/** What one recipient is sent: formats, names of files, how sheets look in them, and how they arrive. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import type { Recipient, RecipientSpec } from "../../api/client";
import { useModelVersions } from "../../api/buildings";
import { usePlotSettings } from "../../api/styles";
import { ChoiceField } from "../../components/ChoiceField";
import { FigureField } from "../../components/FigureField";
import { ToggleButton } from "../../components/ToggleButton";
import { changeRecipient, plotFor, removeRecipient } from "./issueCommands";
import { COLOURS, DELIVERIES, FORMS, PAPERS, type Form } from "./recipientChoices";
import { t } from "../../words/words";

/** What annotation is drawn on cannot be told from the building's layers; it has a switch of its own. */
const NOTHING: never[] = [];

export function RecipientFields({ recipient }: { recipient: Recipient }) {
  const { spec } = recipient;
  const { data: versions = NOTHING } = useModelVersions(recipient.project);
  const { data: settings = NOTHING } = usePlotSettings(recipient.project);
  const layers = Object.keys(
    (versions[0]?.facts as { layers?: Record<string, number> } | undefined)?.layers ?? {},
  );
  const change = (to: Partial<RecipientSpec>, what: string) => void changeRecipient(recipient, to, what);
  const toggleForm = (form: Form) =>
    change(
      {
        forms: spec.forms.includes(form) ? spec.forms.filter((f) => f !== form) : [...spec.forms, form],
      },
      "formats",
    );
  const toggleLayer = (layer: string) =>
    change(
      {
        layers_off: spec.layers_off.includes(layer)
          ? spec.layers_off.filter((l) => l !== layer)
          : [...spec.layers_off, layer],
      },
      "layers",
    );
  return (
    <Box
      component="aside"
      aria-label={t("Recipient {name}", { name: spec.name })}
      sx={{ width: 322, flexShrink: 0, overflowY: "auto", p: 1.5, bgcolor: "background.default" }}
    >
      <Part name={t("Who")}>
        <FigureField
          label={t("Name")}
          width="100%"
          value={spec.name}
          onCommit={(name) => name && change({ name }, "name")}
        />
        <FigureField
          label={t("Organisation")}
          width="100%"
          value={spec.organisation}
          onCommit={(organisation) => change({ organisation }, "organisation")}
        />
        <FigureField
          label={t("Mail address")}
          width="100%"
          value={spec.address}
          onCommit={(address) => change({ address }, t("mail address"))}
        />
      </Part>
      <Part name={t("Files")}>
        <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap" }}>
          {FORMS.map(([form, name]) => (
            <ToggleButton
              key={form}
              on={spec.forms.includes(form)}
              name={name}
              tip={
                form === "model" ? t("The building file as it was imported") : t("Sheets as {name}", { name })
              }
              onToggle={() => toggleForm(form)}
            />
          ))}
        </Box>
        <Box sx={{ display: "flex" }}>
          <ToggleButton
            on={spec.one_file}
            name={t("All sheets in one file")}
            tip={t("PDF and DXF can hold several sheets")}
            onToggle={() => change({ one_file: !spec.one_file }, t("one file or several"))}
          />
        </Box>
        <FigureField
          label={t("Names of files")}
          width="100%"
          value={spec.file_names}
          onCommit={(file_names) => change({ file_names }, t("names of files"))}
        />
        <Box sx={{ fontSize: 11.5, color: "text.secondary", lineHeight: 1.4 }}>
          {"{number} {revision} {title} {project} {project_number} {purpose} {status} {date} {paper}"}
        </Box>
      </Part>
      <Part name={t("Sheets")}>
        <ChoiceField
          label={t("Plot settings")}
          width="100%"
          value={recipient.plot_settings ?? ""}
          choices={[["", t("Each sheet’s own")], ...settings.map((s) => [s.id, s.name] as const)]}
          onChoose={(key) => void plotFor(recipient, key || null)}
        />
        <Box sx={{ display: "flex", gap: 0.75 }}>
          <ChoiceField
            label={t("Paper")}
            width="50%"
            value={spec.onto}
            choices={PAPERS}
            onChoose={(onto) => change({ onto }, "paper")}
          />
          <ChoiceField
            label={t("Colours")}
            width="50%"
            value={spec.colours}
            choices={COLOURS}
            onChoose={(colours) => change({ colours: colours as RecipientSpec["colours"] }, "colours")}
          />
        </Box>
        <Box sx={{ display: "flex", gap: 0.5 }}>
          <ToggleButton
            on={spec.annotation}
            name={t("Annotation")}
            tip={t("Notes, dimensions, schedules and clouds")}
            onToggle={() => change({ annotation: !spec.annotation }, t("annotation or not"))}
          />
          <ToggleButton
            on={spec.fills}
            name={t("Fills")}
            tip={t("Colours of what is cut")}
            onToggle={() => change({ fills: !spec.fills }, t("fills or not"))}
          />
        </Box>
        {layers.length > 0 && (
          <Box role="group" aria-label={t("Layers")}>
            <Box sx={{ fontSize: 11, color: "text.secondary", mb: 0.25 }}>{t("Layers")}</Box>
            <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap" }}>
              {layers.map((layer) => (
                <ToggleButton
                  key={layer}
                  on={!spec.layers_off.includes(layer)}
                  name={layer}
                  tip={t("Drawn or not")}
                  onToggle={() => toggleLayer(layer)}
                />
              ))}
            </Box>
            {spec.layers_off.length > 0 && (
              <Box role="note" sx={{ fontSize: 11.5, color: "text.secondary", mt: 0.5 }}>
                {t("Pictures and shadows of the building are left out too: they show all layers.")}
              </Box>
            )}
          </Box>
        )}
      </Part>
      <Part name={t("Delivery")}>
        <Box sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}>
          <ChoiceField
            label={t("Delivered")}
            width={140}
            value={spec.delivery}
            choices={DELIVERIES}
            onChoose={(to) => change({ delivery: to as RecipientSpec["delivery"] }, "delivery")}
          />
          {spec.delivery === "link" && (
            <FigureField
              label={t("The link holds")}
              unit={t("days")}
              number
              width={120}
              value={String(spec.days)}
              onCommit={(days) => change({ days: Math.round(Number(days)) }, t("how long the link holds"))}
            />
          )}
        </Box>
        <Box>
          <Button variant="outlined" onClick={() => void removeRecipient(recipient)}>
            {t("Delete this recipient")}
          </Button>
        </Box>
      </Part>
    </Box>
  );
}

function Part({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Box
      role="group"
      aria-label={name}
      sx={{ mb: 1.75, display: "flex", flexDirection: "column", gap: 0.75 }}
    >
      <Box sx={{ fontSize: 12.5, fontWeight: 650 }}>{name}</Box>
      {children}
    </Box>
  );
}
