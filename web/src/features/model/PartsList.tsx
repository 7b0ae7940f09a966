/** What the building is made of, by storey, layer, class or material: each shown, hidden or shown alone. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import { ChoiceField } from "../../components/ChoiceField";
import { colours } from "../../theme/theme";
import type { SolidElement } from "./solid";
import { t } from "../../words/words";

export type By = "storey" | "layer" | "class" | "material";
const WAYS: readonly (readonly [By, string])[] = [
  ["storey", t("Storeys")],
  ["layer", t("Layers")],
  ["class", t("Classes")],
  ["material", t("Materials")],
];

interface Props {
  elements: readonly SolidElement[];
  by: By;
  off: ReadonlySet<string>;
  onBy: (by: By) => void;
  onOff: (off: ReadonlySet<string>) => void;
}

export function PartsList({ elements, by, off, onBy, onOff }: Props) {
  const counts = new Map<string, number>();
  for (const element of elements) counts.set(element[by], (counts.get(element[by]) ?? 0) + 1);
  const names = [...counts.keys()].sort((a, b) => a.localeCompare(b, undefined, { numeric: true }));
  const toggle = (name: string, on: boolean) => {
    const next = new Set(off);
    if (on) next.delete(name);
    else next.add(name);
    onOff(next);
  };
  return (
    <>
      <Box sx={{ px: 1.25, pt: 0.75, pb: 0.75, display: "flex", alignItems: "flex-end", gap: 0.5 }}>
        <ChoiceField
          label={t("List parts by")}
          width={120}
          value={by}
          choices={WAYS}
          onChoose={(way) => onBy(way as By)}
        />
        <Button disabled={!off.size} onClick={() => onOff(new Set())} sx={{ px: 0.75 }}>
          {t("Show all")}
        </Button>
      </Box>
      <Box role="group" aria-label={t("Parts")} sx={{ flex: 1, overflowY: "auto", px: 0.75, pb: 1 }}>
        {names.map((name) => (
          <Box
            key={name}
            sx={{
              display: "flex",
              alignItems: "center",
              borderRadius: 0.5,
              fontSize: 12.5,
              "&:hover": { bgcolor: colours.sandLight },
              "& .alone": { opacity: 0 },
              "&:hover .alone, &:focus-within .alone": { opacity: 1 },
            }}
          >
            <Checkbox
              size="small"
              sx={{ p: 0.4 }}
              checked={!off.has(name)}
              onChange={(_, on) => toggle(name, on)}
              slotProps={{ input: { "aria-label": t("Show {storey}", { storey: name || t("no storey") }) } }}
            />
            <Box sx={{ flex: 1, overflowWrap: "anywhere", lineHeight: 1.25 }}>{name || t("No storey")}</Box>
            <Button
              className="alone"
              aria-label={t("Only this: {storey}", { storey: name || t("no storey") })}
              onClick={() => onOff(new Set(names.filter((other) => other !== name)))}
              sx={{ minHeight: 20, minWidth: 0, px: 0.5, fontSize: 11.5 }}
            >
              {t("Only this")}
            </Button>
            <Box
              sx={{
                width: 30,
                textAlign: "right",
                color: "text.secondary",
                fontVariantNumeric: "tabular-nums",
              }}
            >
              {counts.get(name)}
            </Box>
          </Box>
        ))}
      </Box>
    </>
  );
}
