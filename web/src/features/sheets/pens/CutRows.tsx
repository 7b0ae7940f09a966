/** How what is cut is filled and hatched, material by material; the first row that matches is taken. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import type { Cut, PenParts } from "../../../api/client";
import { ColourField } from "../../../components/ColourField";
import { FigureField } from "../../../components/FigureField";
import { CutSample } from "./samples";
import { Chosen } from "./StrokeRows";
import { t } from "../../../words/words";

interface Props {
  penParts: PenParts;
  cuts: readonly Cut[];
  disabled: boolean;
  onChange: (cuts: readonly Cut[]) => void;
}

const GRID = {
  display: "grid",
  gridTemplateColumns: "190px 86px 64px 76px 100px 58px 52px 76px 40px auto",
  columnGap: 0.75,
  alignItems: "center",
};
const SPACING = 1.5;

export function CutRows({ penParts, cuts, disabled, onChange }: Props) {
  const set = (k: number, to: Partial<Cut>) =>
    onChange(cuts.map((cut, n) => (n === k ? { ...cut, ...to } : cut)));
  const move = (k: number, by: number) => {
    const order = [...cuts];
    order.splice(k + by, 0, ...order.splice(k, 1));
    onChange(order);
  };
  return (
    <>
      <Box sx={{ ...GRID, fontSize: 11.5, color: "text.secondary", mb: 0.5 }}>
        {[
          t("Words in the material’s name"),
          t("On paper, enlarged"),
          t("Fill"),
          t("Opacity"),
          t("Hatch"),
          t("Spacing"),
          t("Turn"),
          t("Line"),
          t("Colour"),
        ].map((name) => (
          <Box key={name}>{name}</Box>
        ))}
      </Box>
      {cuts.map((cut, k) => {
        const name = cut.match || t("all else");
        const hatched = Boolean(cut.hatch);
        return (
          <Box key={k} role="group" aria-label={t("Cut style of {name}", { name })} sx={{ ...GRID, mb: 0.5 }}>
            <FigureField
              bare
              width="100%"
              label={t("Materials of row {k}", { k: k + 1 })}
              value={cut.match ?? ""}
              placeholder={t("all else")}
              disabled={disabled}
              onCommit={(match) => set(k, { match })}
            />
            <CutSample cut={cut} families={penParts.hatches.find((h) => h.name === cut.hatch)?.lines ?? []} />
            <Box sx={{ display: "flex", alignItems: "center" }}>
              <Checkbox
                size="small"
                sx={{ p: 0.25 }}
                disabled={disabled}
                checked={Boolean(cut.fill)}
                slotProps={{ input: { "aria-label": t("Fill {name}", { name }) } }}
                onChange={(_, on) => set(k, { fill: on ? "#d9d6cf" : "" })}
              />
              {cut.fill && (
                <ColourField
                  label={t("Fill of {name}", { name })}
                  value={cut.fill}
                  disabled={disabled}
                  onChange={(fill) => set(k, { fill })}
                />
              )}
            </Box>
            <Chosen
              label={t("Opacity of {name}", { name })}
              value={cut.opacity ?? 100}
              disabled={disabled || !cut.fill}
              choices={penParts.screens.map((s) => [s, `${s} %`] as const)}
              onChoose={(opacity) => set(k, { opacity: Number(opacity) as Cut["opacity"] })}
            />
            <Chosen
              label={t("Hatch of {name}", { name })}
              value={cut.hatch ?? ""}
              disabled={disabled}
              choices={[
                ["", "none"],
                ...penParts.hatches.map((h) => [h.name as NonNullable<Cut["hatch"]>, h.name] as const),
              ]}
              onChoose={(hatch) => set(k, { hatch: hatch as Cut["hatch"] })}
            />
            <FigureField
              bare
              width="100%"
              label={t("Spacing of {name}", { name })}
              number
              value={String(cut.spacing ?? SPACING)}
              disabled={disabled || !hatched}
              onCommit={(v) => set(k, { spacing: Number(v) })}
            />
            <FigureField
              bare
              width="100%"
              label={t("Turn of {name}", { name })}
              number
              value={String(cut.angle ?? 0)}
              disabled={disabled || !hatched}
              onCommit={(v) => set(k, { angle: Number(v) })}
            />
            <Chosen
              label={t("Hatch width of {name}", { name })}
              value={cut.width ?? 0.13}
              disabled={disabled || !hatched}
              choices={penParts.widths.map((w) => [w, w.toFixed(2)] as const)}
              onChoose={(width) => set(k, { width: Number(width) })}
            />
            <ColourField
              label={t("Hatch colour of {name}", { name })}
              value={cut.colour ?? "#1b1f24"}
              disabled={disabled || !hatched}
              onChange={(colour) => set(k, { colour })}
            />
            {disabled ? (
              <span />
            ) : (
              <Box sx={{ display: "flex" }}>
                <Button
                  aria-label={t("Move {name} up", { name })}
                  disabled={k === 0}
                  onClick={() => move(k, -1)}
                  sx={{ minWidth: 0, px: 0.5 }}
                >
                  ↑
                </Button>
                <Button
                  aria-label={t("Move {name} down", { name })}
                  disabled={k === cuts.length - 1}
                  onClick={() => move(k, 1)}
                  sx={{ minWidth: 0, px: 0.5 }}
                >
                  ↓
                </Button>
                <Button
                  aria-label={t("Remove {name}", { name })}
                  onClick={() => onChange(cuts.filter((_, n) => n !== k))}
                  sx={{ minWidth: 0, px: 0.5 }}
                >
                  ✕
                </Button>
              </Box>
            )}
          </Box>
        );
      })}
      <Box sx={{ mt: 1.25, display: "flex", gap: 2, alignItems: "center" }}>
        {!disabled && (
          <Button
            variant="outlined"
            onClick={() =>
              onChange([
                {
                  match: t("new material"),
                  fill: "",
                  opacity: 100,
                  hatch: "diagonal",
                  spacing: SPACING,
                  angle: 0,
                  width: 0.13,
                  colour: "#1b1f24",
                  screen: 100,
                },
                ...cuts,
              ])
            }
          >
            {t("Add a row")}
          </Button>
        )}
        <Box sx={{ fontSize: 12, color: "text.secondary", lineHeight: 1.35 }}>
          {t(
            "Separate words by bars: “concrete | screed”. Spacing is in millimetres of paper at " +
              "every scale, and the turn in degrees.",
          )}
        </Box>
      </Box>
    </>
  );
}
