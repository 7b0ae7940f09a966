/** How the pens of a viewport differ from the usual ones, by line role and by layer. */
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import Select from "@mui/material/Select";
import type { Viewport } from "../../api/client";
import { ROLES } from "../../canvas/penColours";
import { ChoiceField } from "../../components/ChoiceField";
import { PopUp } from "../../components/PopUp";
import { colours } from "../../theme/theme";
import { COLOURS, WIDTHS } from "./penChoices";
import { t } from "../../words/words";

type Pens = Viewport["pens"];
interface Change {
  width?: number | null;
  colour?: string | null;
}

export const pensChanged = (pens: Pens) =>
  Object.keys(pens.roles ?? {}).length + Object.keys(pens.layers ?? {}).length;

interface Props {
  pens: Pens;
  /** The id of the pen table, null for the sheet's, and those that there are. */
  table: string | null;
  tables: readonly (readonly [key: string, name: string])[];
  onTable: (table: string | null) => void;
  layers: readonly string[];
  onChange: (pens: Pens) => void;
}

export function PensMenu({ pens, table, tables, layers, onTable, onChange }: Props) {
  const count = pensChanged(pens);
  const named = tables.find(([key]) => key === table)?.[1];
  const set = (kind: "roles" | "layers", name: string, to: Change) => {
    const change = Object.fromEntries(
      Object.entries({ ...pens[kind]?.[name], ...to }).filter(([, value]) => value != null),
    );
    const { [name]: _, ...others } = pens[kind] ?? {};
    const all = Object.keys(change).length ? { ...others, [name]: change } : others;
    const { [kind]: __, ...rest } = pens;
    onChange({ roles: {}, layers: {}, ...rest, [kind]: all } as Pens);
  };
  return (
    <PopUp
      button={
        count
          ? t("{count} {which} changed", { count, which: count === 1 ? t("pen") : t("pens") })
          : (named ?? t("Sheet’s pens"))
      }
      name={t("Pens of this viewport")}
    >
      <Box sx={{ px: 2, pt: 1.5 }}>
        <ChoiceField
          label={t("Drawn with the pen table")}
          width={240}
          value={(named && table) || ""}
          choices={[["", t("as the sheet")], ...tables]}
          onChoose={(key) => onTable(key || null)}
        />
      </Box>
      <Box sx={{ display: "grid", gridTemplateColumns: "auto auto", gap: 3, p: 2, maxHeight: 470 }}>
        {(
          [
            [t("Line roles"), "roles", ROLES],
            [t("Layers"), "layers", layers],
          ] as const
        ).map(([title, kind, names]) => (
          <Box key={kind} role="group" aria-label={title}>
            <Box
              sx={{
                display: "flex",
                gap: 0.75,
                mb: 0.5,
                fontSize: 11.5,
                color: "text.secondary",
                alignItems: "baseline",
              }}
            >
              <Box sx={{ width: 112, fontSize: 12.5, fontWeight: 650, color: "text.primary" }}>{title}</Box>
              <Box sx={{ width: 92 }}>{t("Width")}</Box>
              <Box>{t("Colour")}</Box>
            </Box>
            {names.map((name) => {
              const change: Change = pens[kind]?.[name] ?? {};
              return (
                <Box key={name} sx={{ display: "flex", alignItems: "center", gap: 0.75, mb: 0.25 }}>
                  <Box
                    sx={{
                      width: 112,
                      fontSize: 12.5,
                      fontWeight: Object.keys(change).length ? 650 : 400,
                      lineHeight: 1.2,
                    }}
                  >
                    {name}
                  </Box>
                  <Select
                    size="small"
                    displayEmpty
                    value={change.width == null ? "" : String(change.width)}
                    inputProps={{ "aria-label": t("Width of {name}", { name }) }}
                    MenuProps={{ transitionDuration: 0 }}
                    onChange={(event) =>
                      set(kind, name, { width: event.target.value ? Number(event.target.value) : null })
                    }
                    sx={{ width: 92 }}
                  >
                    <MenuItem value="" dense>
                      {t("same")}
                    </MenuItem>
                    {WIDTHS.map((w) => (
                      <MenuItem key={w} value={String(w)} dense>
                        {t("{w} mm", { w: w.toFixed(2) })}
                      </MenuItem>
                    ))}
                  </Select>
                  <Select
                    size="small"
                    displayEmpty
                    value={change.colour ?? ""}
                    inputProps={{ "aria-label": t("Colour of {name}", { name }) }}
                    MenuProps={{ transitionDuration: 0 }}
                    onChange={(event) => set(kind, name, { colour: event.target.value || null })}
                    sx={{ width: 92 }}
                  >
                    <MenuItem value="" dense>
                      {t("same")}
                    </MenuItem>
                    {COLOURS.map(([value, word]) => (
                      <MenuItem key={value} value={value} dense>
                        <Box
                          component="span"
                          sx={{
                            display: "inline-block",
                            width: 10,
                            height: 10,
                            mr: 0.75,
                            borderRadius: "2px",
                            bgcolor: value,
                            border: `1px solid ${colours.sandShade}`,
                          }}
                        />
                        {word}
                      </MenuItem>
                    ))}
                  </Select>
                </Box>
              );
            })}
          </Box>
        ))}
      </Box>
    </PopUp>
  );
}
