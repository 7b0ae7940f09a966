/**
 * What is shown of a building: storeys, layers and classes, each on or off, with how many elements they hold.
 */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import type { ModelVersion, Shown } from "../api/client";
import { PopUp } from "./PopUp";
import { t } from "../words/words";

export type ShownKey = "without_storeys" | "without_layers" | "without_classes" | "without";

/** How many names are left out. */
export const leftOut = ({
  without_layers = [],
  without_storeys = [],
  without_classes = [],
  without = [],
}: Shown = {}) => without_layers.length + without_storeys.length + without_classes.length + without.length;

interface Props {
  shown: Shown;
  facts: Partial<Pick<ModelVersion["facts"], "storeys" | "layers" | "classes">> | undefined;
  onChange: (key: ShownKey, names: string[]) => void;
}

export function ShownMenu({ shown, facts, onChange }: Props) {
  const count = leftOut(shown);
  const single = shown.without ?? [];
  const all: [string, ShownKey, [string, string][]][] = [
    [t("Storeys"), "without_storeys", [...(facts?.storeys ?? [])].reverse().map((s) => [s.name, ""])],
    [
      t("Layers"),
      "without_layers",
      Object.entries(facts?.layers ?? {}).map(([name, n]) => [name, String(n)]),
    ],
    [
      t("Classes"),
      "without_classes",
      Object.entries(facts?.classes ?? {}).map(([name, n]) => [name, String(n)]),
    ],
  ];
  const lists = all.filter(([, , rows]) => rows.length > 0);
  const toggle = (key: ShownKey, name: string, on: boolean) => {
    const off = new Set(shown[key] ?? []);
    if (on) off.delete(name);
    else off.add(name);
    onChange(key, [...off].sort());
  };
  return (
    <PopUp button={count ? t("{count} hidden", { count }) : t("Everything")} name={t("What is shown")}>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: `repeat(${lists.length}, auto)`,
          gap: 3,
          p: 2,
          maxHeight: 470,
        }}
      >
        {lists.map(([name, key, rows]) => (
          <Box key={key} role="group" aria-label={name}>
            <Box sx={{ fontSize: 12.5, fontWeight: 650, mb: 0.5 }}>{name}</Box>
            {rows.map(([label, n]) => (
              <FormControlLabel
                key={label}
                sx={{
                  display: "flex",
                  m: 0,
                  "& .MuiFormControlLabel-label": {
                    fontSize: 12.5,
                    display: "flex",
                    flex: 1,
                    justifyContent: "space-between",
                    gap: 2,
                  },
                }}
                control={
                  <Checkbox
                    size="small"
                    sx={{ p: 0.35, mr: 0.5 }}
                    checked={!(shown[key] ?? []).includes(label)}
                    onChange={(_, on) => toggle(key, label, on)}
                  />
                }
                label={
                  <>
                    <span>{label}</span>
                    <Box
                      component="span"
                      sx={{ color: "text.secondary", fontVariantNumeric: "tabular-nums" }}
                    >
                      {n}
                    </Box>
                  </>
                }
              />
            ))}
          </Box>
        ))}
        {single.length > 0 && (
          <Button onClick={() => onChange("without", [])} sx={{ gridColumn: "1 / -1", justifySelf: "start" }}>
            {t("Show the {which} hidden one by one", {
              which: single.length === 1 ? t("element") : t("{count} elements", { count: single.length }),
            })}
          </Button>
        )}
      </Box>
    </PopUp>
  );
}
