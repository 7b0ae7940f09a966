/** Which columns a schedule has, which rows, in which order, and how many of them stand here. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import { useState, type ReactNode } from "react";
import type { ScheduleSpec } from "../../../api/client";
import { ChoiceField } from "../../../components/ChoiceField";
import { choicesOf } from "../../../components/choices";
import { FigureField } from "../../../components/FigureField";
import { TitledDialog } from "../../../components/TitledDialog";
import { colours } from "../../../theme/theme";
import { asSentence, classWords } from "../../../components/classWords";
import { usualColumns } from "./pieceChoices";
import { ValueChoice } from "./ValueChoice";
import { t } from "../../../words/words";

type Column = ScheduleSpec["columns"][number];
type Condition = ScheduleSpec["where"][number];

const TESTS = choicesOf<Condition["test"]>({
  is: "is",
  "is not": t("is not"),
  contains: "contains",
  over: t("is over"),
  under: t("is under"),
  given: t("is given"),
});
interface Props {
  spec: ScheduleSpec;
  sources: readonly string[];
  /** The classes of the building's elements. */
  classes: readonly string[];
  onClose: () => void;
  onDone: (to: Partial<ScheduleSpec>) => void;
}

export function ScheduleDialog({ spec, sources, classes, onClose, onDone }: Props) {
  const [columns, setColumns] = useState<Column[]>(
    spec.columns.length ? spec.columns : usualColumns(spec.of),
  );
  const [where, setWhere] = useState<Condition[]>(spec.where);
  const [rest, setRest] = useState({
    classes: spec.classes,
    group: spec.group,
    sort: spec.sort,
    counted: spec.counted,
    first: spec.first,
    most: spec.most,
  });
  const column = (k: number, to: Partial<Column>) =>
    setColumns(columns.map((c, n) => (n === k ? { ...c, ...to } : c)));
  const condition = (k: number, to: Partial<Condition>) =>
    setWhere(where.map((c, n) => (n === k ? { ...c, ...to } : c)));
  return (
    <TitledDialog
      title={t("Columns and rows")}
      width="md"
      onClose={onClose}
      foot={
        <>
          <Button onClick={onClose}>{t("Cancel")}</Button>
          <Button variant="contained" onClick={() => onDone({ columns, where, ...rest })}>
            {t("Save")}
          </Button>
        </>
      }
    >
      <Box sx={{ overflowY: "auto", maxHeight: "68vh", display: "flex", flexDirection: "column", gap: 1.5 }}>
        {spec.of === "elements" && (
          <Section name={t("Classes")}>
            <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.5 }}>
              {classes.map((name) => {
                const on = rest.classes.includes(name);
                return (
                  <Button
                    key={name}
                    variant="outlined"
                    aria-pressed={on}
                    onClick={() =>
                      setRest({
                        ...rest,
                        classes: on ? rest.classes.filter((c) => c !== name) : [...rest.classes, name],
                      })
                    }
                    sx={on ? { bgcolor: colours.rustPale, borderColor: colours.rust } : {}}
                  >
                    {asSentence(classWords(name))}
                  </Button>
                );
              })}
            </Box>
            {!rest.classes.length && <Hint>{t("All classes, while none is chosen.")}</Hint>}
          </Section>
        )}
        <Section name={t("Columns")}>
          {columns.map((c, k) => (
            <Box key={k} sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}>
              <ValueChoice
                key={c.source}
                label={t("Value")}
                width={260}
                value={c.source}
                sources={sources}
                onChoose={(source) => column(k, { source })}
              />
              <FigureField
                label={t("Caption")}
                width={150}
                value={c.caption}
                placeholder={c.source.split(".").at(-1)}
                onCommit={(caption) => column(k, { caption })}
              />
              <FigureField
                label={t("Width (mm)")}
                number
                width={78}
                value={c.width ? String(c.width) : ""}
                placeholder={t("fits")}
                onCommit={(width) => column(k, { width: Number(width) })}
              />
              <FormControlLabel
                label={t("Total")}
                control={
                  <Checkbox size="small" checked={c.total} onChange={(_, total) => column(k, { total })} />
                }
                sx={{ mr: 0 }}
              />
              <Button
                aria-label={t("Column {k} to the left", { k: k + 1 })}
                disabled={k === 0}
                onClick={() => setColumns(columns.toSpliced(k, 1).toSpliced(k - 1, 0, c))}
                sx={{ minWidth: 0, px: 0.75 }}
              >
                ←
              </Button>
              <Button
                disabled={columns.length < 2}
                onClick={() => setColumns(columns.toSpliced(k, 1))}
                sx={{ minWidth: 0, px: 0.75 }}
              >
                {t("Remove")}
              </Button>
            </Box>
          ))}
          <Add
            name={t("Add a column")}
            onAdd={() => setColumns([...columns, { source: "Name", caption: "", total: false, width: 0 }])}
          />
        </Section>
        <Section name={t("Rows that")}>
          {where.map((c, k) => (
            <Box key={k} sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}>
              <ValueChoice
                key={c.source}
                label={t("Value")}
                width={260}
                value={c.source}
                sources={sources}
                onChoose={(source) => condition(k, { source })}
              />
              <ChoiceField
                label={t("Test")}
                width={110}
                value={c.test}
                choices={TESTS}
                onChoose={(test) => condition(k, { test: test as Condition["test"] })}
              />
              {c.test !== "given" && (
                <FigureField
                  label={t("Compared with")}
                  width={150}
                  value={c.value}
                  onCommit={(value) => condition(k, { value })}
                />
              )}
              <Button onClick={() => setWhere(where.toSpliced(k, 1))} sx={{ minWidth: 0, px: 0.75 }}>
                {t("Remove")}
              </Button>
            </Box>
          ))}
          {!where.length && <Hint>{t("All rows, while there is no condition.")}</Hint>}
          <Add
            name={t("Add a condition")}
            onAdd={() => setWhere([...where, { source: "Name", test: "contains", value: "" }])}
          />
        </Section>
        <Section name={t("Order")}>
          <Box sx={{ display: "flex", gap: 1, alignItems: "flex-end", flexWrap: "wrap" }}>
            <ValueChoice
              key={`sort ${rest.sort.join()}`}
              label={t("Sorted by (blank for the usual order)")}
              width={230}
              value={rest.sort[0] ?? ""}
              sources={sources}
              onChoose={(source) => setRest({ ...rest, sort: source ? [source] : [] })}
            />
            {rest.sort.length > 0 && (
              <Button onClick={() => setRest({ ...rest, sort: [] })} sx={{ px: 0.75 }}>
                {t("Standard order")}
              </Button>
            )}
            <ValueChoice
              key={`group ${rest.group}`}
              label={t("Grouped by (blank for not)")}
              width={230}
              value={rest.group}
              sources={sources}
              onChoose={(group) => setRest({ ...rest, group })}
            />
            {rest.group && (
              <Button onClick={() => setRest({ ...rest, group: "" })} sx={{ px: 0.75 }}>
                {t("Not grouped")}
              </Button>
            )}
          </Box>
          <Box sx={{ display: "flex", gap: 1, alignItems: "flex-end" }}>
            <FormControlLabel
              label={t("Rows that are alike as one, with their count")}
              control={
                <Checkbox
                  size="small"
                  checked={rest.counted}
                  onChange={(_, counted) => setRest({ ...rest, counted })}
                />
              }
            />
            <FigureField
              label={t("From row")}
              number
              width={72}
              value={String(rest.first)}
              onCommit={(first) => setRest({ ...rest, first: Math.max(1, Math.round(Number(first))) })}
            />
            <FigureField
              label={t("Rows at most")}
              number
              width={84}
              value={rest.most ? String(rest.most) : ""}
              placeholder={t("all")}
              onCommit={(most) => setRest({ ...rest, most: Math.max(0, Math.round(Number(most))) })}
            />
          </Box>
        </Section>
      </Box>
    </TitledDialog>
  );
}

function Section({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Box role="group" aria-label={name} sx={{ display: "flex", flexDirection: "column", gap: 0.75 }}>
      <Box sx={{ fontSize: 12.5, fontWeight: 650 }}>{name}</Box>
      {children}
    </Box>
  );
}

const Hint = ({ children }: { children: ReactNode }) => (
  <Box sx={{ fontSize: 12.5, color: "text.secondary" }}>{children}</Box>
);

const Add = ({ name, onAdd }: { name: string; onAdd: () => void }) => (
  <Box>
    <Button variant="outlined" onClick={onAdd}>
      {name}
    </Button>
  </Box>
);
