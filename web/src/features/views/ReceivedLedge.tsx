/** The ledge of a drawing from others: its unit or scale, held against two points, its layers, its file. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import type { ReceivedFile, View } from "../../api/client";
import { ChoiceField } from "../../components/ChoiceField";
import { FigureField } from "../../components/FigureField";
import { Buttons, Group, Ledge, Rows } from "../../components/Ledge";
import { ShownMenu } from "../../components/ShownMenu";
import { StateMark } from "../../components/StateMark";
import type { ViewEdits } from "../../sync/views";
import type { Spec } from "./kinds";
import { withShown } from "./kinds";
import { ReceiveDrawing } from "./ReceiveDrawing";
import { UNITS, correctedUnit, scaleOf, withFile } from "./received";
import { t } from "../../words/words";

interface Props {
  view: View;
  file: ReceivedFile | undefined;
  edits: ViewEdits;
  /** How far apart two picked points are, real mm; "picking" until there are two; null for none. */
  picked: number | "picking" | null;
  onPick: (on: boolean) => void;
  onDelete: () => void;
}

export function ReceivedLedge({ view, file, edits, picked, onPick, onDelete }: Props) {
  const { spec } = view;
  const set = (to: Spec, what: string) =>
    void edits.change(view, { spec: to }, t("{what} of {name}", { what, name: view.name }));
  const mm = String(spec.mm ?? 1);
  const known = UNITS.some(([unit]) => unit === mm);
  const storage = file?.facts;
  return (
    <Ledge label={t("Ledge: drawing from others")}>
      <Group name={t("Drawing from others")}>
        <Rows>
          <FigureField
            label={t("Name")}
            width={190}
            value={view.name}
            onCommit={(name) =>
              name && void edits.change(view, { name }, t("rename {name}", { name: view.name }))
            }
          />
          <Box sx={{ display: "flex", alignItems: "center", gap: 0.75, minHeight: 30, fontSize: 12.5 }}>
            <StateMark state={view.state} />
            <Box
              sx={{ color: "text.secondary", maxWidth: 170, overflow: "hidden", textOverflow: "ellipsis" }}
            >
              {spec.name}
            </Box>
          </Box>
        </Rows>
      </Group>
      <Group name={storage?.paper ? t("Scale") : t("Unit")}>
        <Rows>
          {file && storage?.paper ? (
            <FigureField
              label={t("Drawn at 1 :")}
              number
              width={150}
              value={String(Number(scaleOf(spec, file).toPrecision(6)))}
              onCommit={(scale) =>
                Number(scale) > 0 && set({ ...spec, mm: Number(scale) * (storage.mm ?? 1) }, "scale")
              }
            />
          ) : (
            <ChoiceField
              label={storage?.mm == null ? t("Unit of the file (not given)") : t("Unit of the file")}
              width={150}
              value={mm}
              choices={known ? UNITS : [...UNITS, [mm, t("{mm} mm", { mm })]]}
              onChoose={(unit) => set({ ...spec, mm: Number(unit) }, "unit")}
            />
          )}
          {(storage?.pages ?? 1) > 1 && (
            <FigureField
              label={t("Page (of {pages})", { pages: storage?.pages ?? 1 })}
              number
              width={150}
              value={String(spec.page ?? 1)}
              onCommit={(page) =>
                set(
                  { ...spec, page: Math.min(Math.max(1, Math.round(Number(page))), storage?.pages ?? 1) },
                  "page",
                )
              }
            />
          )}
        </Rows>
      </Group>
      <Group name={t("Checked against two points")}>
        {typeof picked === "number" ? (
          <Rows>
            <Box role="status" sx={{ fontSize: 12.5 }}>
              {t("They are {picked} mm apart here.", { picked: picked.toFixed(1) })}
            </Box>
            <Box sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}>
              <FigureField
                label={t("Truly (mm)")}
                number
                width={104}
                value=""
                placeholder={picked.toFixed(0)}
                onCommit={(truly) => {
                  onPick(false);
                  if (Number(truly) > 0)
                    set({ ...spec, mm: correctedUnit(spec.mm ?? 1, picked, Number(truly)) }, "unit");
                }}
              />
              <Button variant="outlined" onClick={() => onPick(false)}>
                {t("It is right")}
              </Button>
            </Box>
          </Rows>
        ) : (
          <Buttons>
            <Tooltip title={t("Click two points whose distance you know, and type it")}>
              <Button
                variant="outlined"
                aria-pressed={picked === "picking"}
                onClick={() => onPick(picked === null)}
              >
                {picked === "picking" ? t("Click two points…") : t("Pick two points")}
              </Button>
            </Tooltip>
          </Buttons>
        )}
      </Group>
      <Group name={t("Layers")}>
        <Buttons>
          <ShownMenu
            shown={spec.shown ?? {}}
            facts={{ layers: storage?.layers ?? {} }}
            onChange={(key, names) => set(withShown(spec, { [key]: names }), t("what is shown"))}
          />
        </Buttons>
      </Group>
      <Box sx={{ ml: "auto", pt: "20px", display: "flex", gap: 0.5 }}>
        <ReceiveDrawing
          project={view.project}
          name={t("Newer file…")}
          tip={t("Its lines take the place of these; unit, place and layers stay")}
          onReady={(newer) => set(withFile(spec, newer), t("newer file"))}
        />
        <Button variant="outlined" onClick={onDelete}>
          {t("Delete")}
        </Button>
      </Box>
    </Ledge>
  );
}
