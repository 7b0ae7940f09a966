/** Which rules a project checks and how much each matters; as a file that can be given to another project. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Select from "@mui/material/Select";
import { useRef } from "react";
import type { CheckRules, Finding, Rule } from "../../api/client";
import { useCheckRules, useRules } from "../../api/checks";
import { TitledDialog } from "../../components/TitledDialog";
import { FigureField } from "../../components/FigureField";
import { notify, notifyError } from "../../stores/notices";
import { commit } from "../../sync/commands";
import { changing } from "../../sync/rows";
import { chooseRule, setLimit, type Choice } from "./checkCommands";
import { SEVERITIES } from "../../components/severities";
import { t } from "../../words/words";
import { said } from "../../words/said";

const NOTHING: never[] = [];
const CHOICES: readonly (readonly [Choice, string])[] = [
  ...(["error", "warning", "notice"] as const).map((key) => [key, SEVERITIES[key].one] as const),
  ["off", t("Off")],
];

interface Props {
  project: string;
  findings: readonly Finding[];
  onClose: () => void;
}

export function RulesDialog({ project, findings, onClose }: Props) {
  const { data: rules = NOTHING } = useRules();
  const { data: own } = useCheckRules(project);
  const file = useRef<HTMLInputElement>(null);
  if (!own) return null;
  const save = () => {
    const link = document.createElement("a");
    link.href = URL.createObjectURL(
      new Blob([JSON.stringify({ rules: own.choices, limits: own.limits }, null, 2)], {
        type: "application/json",
      }),
    );
    link.download = "rules.json";
    link.click();
    URL.revokeObjectURL(link.href);
  };
  const load = async (chosen: File | undefined) => {
    if (!chosen) return;
    try {
      const { rules: choices, limits = {} } = JSON.parse(await chosen.text()) as {
        rules?: Record<string, Choice>;
        limits?: Record<string, number>;
      };
      if (!choices || typeof choices !== "object") throw new Error();
      await commit(project, t("load rules"), [changing("check_rules", own, { choices, limits })]);
    } catch (error) {
      if (error instanceof SyntaxError || (error instanceof Error && !error.message))
        notify(t("“{name}” holds no rules. Choose a file that was saved here.", { name: chosen.name }), true);
      else notifyError(error);
    }
  };
  return (
    <TitledDialog
      title={t("What is checked")}
      onClose={onClose}
      foot={
        <>
          <input
            ref={file}
            type="file"
            accept="application/json,.json"
            aria-label={t("File of rules")}
            hidden
            onChange={(event) => void load(event.target.files?.[0])}
          />
          <Button onClick={() => file.current?.click()}>{t("Load a file…")}</Button>
          <Button onClick={save}>{t("Save as a file")}</Button>
          <Button variant="contained" onClick={onClose}>
            {t("Close")}
          </Button>
        </>
      }
    >
      <Box sx={{ overflowY: "auto", minHeight: 0 }}>
        {rules.map((rule) => (
          <Row
            key={rule.key}
            rule={rule}
            choice={own.choices[rule.key] as Choice | undefined}
            found={findings.filter((f) => f.rule === rule.key).length}
            limits={own.limits}
            onLimit={(key, value) => void setLimit(project, own, key, value)}
            onChoose={(choice) =>
              void chooseRule(project, own, rule.key, choice === rule.severity ? null : choice)
            }
          />
        ))}
      </Box>
    </TitledDialog>
  );
}

interface RowProps {
  rule: Rule;
  choice: Choice | undefined;
  found: number;
  limits: CheckRules["limits"];
  onLimit: (key: string, value: number | null) => void;
  onChoose: (choice: Choice) => void;
}

function Row({ rule, choice, found, limits, onLimit, onChoose }: RowProps) {
  const limited = rule.limits.length > 0 && choice !== "off" && (
    <Box sx={{ display: "flex", gap: 1, pb: 0.5 }}>
      {rule.limits.map((limit) => {
        const key = `${rule.key}.${limit.key}`;
        return (
          <FigureField
            key={key}
            label={said(limit.name)}
            unit={limit.unit}
            number
            width={190}
            value={String(limits[key] ?? limit.value)}
            onCommit={(typed) => onLimit(key, Number(typed) === limit.value ? null : Number(typed))}
          />
        );
      })}
    </Box>
  );
  return (
    <>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, py: 0.25 }}>
        <Box sx={{ flex: 1, fontSize: 13, fontWeight: choice ? 650 : 400 }}>{said(rule.name)}</Box>
        <Box sx={{ fontSize: 12, color: "text.secondary" }}>{found ? t("{found} found", { found }) : ""}</Box>
        <Select
          size="small"
          value={choice ?? rule.severity}
          inputProps={{ "aria-label": said(rule.name) }}
          MenuProps={{ transitionDuration: 0 }}
          onChange={(event) => onChoose(event.target.value as Choice)}
          sx={{ width: 120 }}
        >
          {CHOICES.map(([key, name]) => (
            <MenuItem key={key} value={key} dense>
              {name}
            </MenuItem>
          ))}
        </Select>
      </Box>
      {limited}
    </>
  );
}
