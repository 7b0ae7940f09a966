/** The ledge while a template is edited: the template itself, or the part of it that is selected. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { DisplayList, Field, Picture, Sheet, Template, TemplateSpec } from "../../api/client";
import { ChoiceField } from "../../components/ChoiceField";
import { FigureField } from "../../components/FigureField";
import { Buttons, Group, Ledge, Rows } from "../../components/Ledge";
import { More } from "../../components/More";
import { ToggleButton } from "../../components/ToggleButton";
import { PartLedge } from "./PartLedge";
import { chosenParts, deleteTemplate, duplicateTemplate, NEW, type TemplateEdits } from "./templateCommands";
import { useSelection } from "../../stores/selection";
import { widths } from "./templateParts";
import { inSentence, t } from "../../words/words";

interface Props {
  template: Template;
  display: DisplayList;
  sheets: readonly Sheet[];
  fields: readonly Field[];
  pictures: readonly Picture[];
  edits: TemplateEdits;
}

const SIDES = ["left", "bottom", "right", "top"] as const;

export function TemplateLedge(props: Props) {
  const selected = useSelection((s) => s.selected);
  const [first, ...more] = chosenParts(selected);
  const part = first === undefined ? undefined : props.template.spec.parts?.[first];
  return part && first !== undefined ? (
    <PartLedge {...props} part={part} number={first} more={more.length} />
  ) : (
    <WholeLedge {...props} />
  );
}

function WholeLedge({ template, sheets, edits }: Props) {
  const { spec } = template;
  const users = sheets.filter((s) => s.template === template.id);
  const sides = (key: "margins" | "kept", label: string) =>
    SIDES.map((side, k) => (
      <FigureField
        key={side}
        label={`${label} ${side}`}
        number
        width={68}
        value={String(spec[key][k] ?? 0)}
        onCommit={(value) =>
          void edits.write(
            {
              [key]: spec[key].map((v, n) =>
                n === k ? Number(value) : v,
              ) as unknown as TemplateSpec["margins"],
            },
            t("{label} of a template", { label: inSentence(label) }),
          )
        }
      />
    ));
  return (
    <Ledge label={t("Ledge: template")}>
      <Group name={t("Template")}>
        <Rows>
          <FigureField
            label={t("Name")}
            width={220}
            value={template.name}
            onCommit={(name) => name && void edits.rename(name)}
          />
          <Box
            sx={{
              width: 220,
              mt: "17px",
              fontSize: 12,
              lineHeight: 1.3,
              color: "text.secondary",
              maxHeight: 32,
              overflow: "hidden",
            }}
          >
            {users.length
              ? t("On {number}: a change reaches them all.", {
                  number: users.map((s) => s.number).join(", "),
                })
              : t("On no sheet yet.")}
          </Box>
        </Rows>
      </Group>
      <Group name={t("Frame and room for drawings (mm)")}>
        <Rows>
          <Box sx={{ display: "flex", gap: 0.5 }}>{sides("margins", "Edge")}</Box>
          <Box sx={{ display: "flex", gap: 0.5 }}>{sides("kept", t("Clear"))}</Box>
        </Rows>
      </Group>
      <Group name={t("Border")}>
        <Rows>
          <ChoiceField
            label={t("Frame line")}
            width={110}
            value={String(spec.frame)}
            choices={widths(spec.frame, t("None"))}
            onChoose={(w) => void edits.write({ frame: Number(w) }, t("frame of a template"))}
          />
          <Buttons>
            <ToggleButton
              on={spec.zones}
              name={t("Zones")}
              tip={t("Grid references outside the frame (ISO 5457)")}
              onToggle={() => void edits.write({ zones: !spec.zones }, t("zones of a template"))}
            />
            <ToggleButton
              on={spec.centring}
              name={t("Centring")}
              tip={t("Centring marks on the middles of the sides (ISO 5457)")}
              onToggle={() =>
                void edits.write({ centring: !spec.centring }, t("centring marks of a template"))
              }
            />
          </Buttons>
        </Rows>
      </Group>
      <Group name={t("Add")}>
        <Box sx={{ display: "grid", gridTemplateColumns: "repeat(3, auto)", gap: 0.5, pt: "15px" }}>
          {NEW.map(([name]) => (
            <Button key={name} variant="outlined" onClick={() => edits.add(name)} sx={{ minWidth: 0, px: 1 }}>
              {name}
            </Button>
          ))}
        </Box>
      </Group>
      <Box
        sx={{ ml: "auto", pt: 2.5, display: "flex", flexDirection: "column", gap: 1, alignItems: "flex-end" }}
      >
        <Button variant="contained" onClick={edits.leave}>
          {t("Done")}
        </Button>
        <More
          commands={[
            [t("Duplicate this template"), () => duplicateTemplate(template.project ?? "", template)],
            ...(users.length
              ? []
              : [
                  [
                    t("Delete this template"),
                    () => (edits.leave(), void deleteTemplate(template.project ?? "", template)),
                  ] as const,
                ]),
          ]}
        />
      </Box>
    </Ledge>
  );
}
