/** Pens of line roles and of layers: width, colour, pattern and screening, with a sample of each. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Select from "@mui/material/Select";
import type { PenParts, Stroke } from "../../../api/client";
import { ROLES } from "../../../canvas/penColours";
import { ChoiceField } from "../../../components/ChoiceField";
import { ColourField } from "../../../components/ColourField";
import { LineSample } from "./samples";
import { roleWord } from "../../../components/lineRoles";
import { t } from "../../../words/words";

export type Strokes = Record<string, Stroke>;

const MEANING: Record<string, string> = {
  cut: t("what the cut goes through"),
  profile: t("against what lies farther back"),
  edge: t("visible edges"),
  seam: t("where one material meets itself"),
  far: t("beyond the view's distance"),
  overhead: t("above a plan's cut"),
  hidden: t("behind something else"),
  symbol: t("doors open, stairs broken off"),
};

interface Props {
  penParts: PenParts;
  strokes: Strokes;
  disabled: boolean;
  onChange: (strokes: Strokes) => void;
}

const GRID = {
  display: "grid",
  gridTemplateColumns: "250px 96px 92px 50px 142px 96px auto",
  columnGap: 1,
  alignItems: "center",
};

export function RoleRows({ penParts, strokes, disabled, onChange }: Props) {
  return (
    <>
      <Head first={t("Line role")} />
      {ROLES.map((role) => (
        <Row
          key={role}
          name={roleWord(role)}
          about={MEANING[role]}
          penParts={penParts}
          stroke={strokes[role] ?? {}}
          disabled={disabled}
          onChange={(stroke) => onChange({ ...strokes, [role]: stroke })}
        />
      ))}
    </>
  );
}

/** How the pens of some layers differ from those of their roles. */
export function LayerRows({
  penParts,
  strokes,
  layers,
  disabled,
  onChange,
}: Props & { layers: readonly string[] }) {
  const without = (name: string) =>
    Object.fromEntries(Object.entries(strokes).filter(([key]) => key !== name));
  const names = Object.keys(strokes).sort();
  const rest = layers.filter((layer) => !names.includes(layer));
  return (
    <>
      {names.length > 0 && <Head first={t("Layer")} />}
      {names.map((name) => (
        <Row
          key={name}
          name={name}
          penParts={penParts}
          stroke={strokes[name] ?? {}}
          usual
          disabled={disabled}
          onChange={(stroke) => onChange({ ...strokes, [name]: stroke })}
          onRemove={() => onChange(without(name))}
        />
      ))}
      {names.length === 0 && (
        <Box sx={{ fontSize: 13, color: "text.secondary", mb: 1.5 }}>
          {t("Every layer is drawn with the pens of its lines' roles.")}
        </Box>
      )}
      {!disabled && (
        <Box sx={{ mt: 1 }}>
          <ChoiceField
            label={t("Give a layer a pen of its own")}
            width={250}
            value=""
            choices={[["", t("Layer…")], ...rest.map((layer) => [layer, layer] as const)]}
            onChoose={(layer) => layer && onChange({ ...strokes, [layer]: { screen: 50 } })}
          />
        </Box>
      )}
    </>
  );
}

function Head({ first }: { first: string }) {
  return (
    <Box sx={{ ...GRID, fontSize: 11.5, color: "text.secondary", mb: 0.5 }}>
      {[first, t("On paper, enlarged"), t("Width"), t("Colour"), t("Pattern"), t("Screening")].map((name) => (
        <Box key={name}>{name}</Box>
      ))}
    </Box>
  );
}

interface RowProps {
  name: string;
  about?: string;
  penParts: PenParts;
  stroke: Stroke;
  disabled: boolean;
  /** Whether what is not said is that of the role. */
  usual?: boolean;
  onChange: (stroke: Stroke) => void;
  onRemove?: () => void;
}

function Row({ name, about, penParts, stroke, disabled, usual = false, onChange, onRemove }: RowProps) {
  const as = usual ? [["", t("as its role")] as const] : [];
  const set = (key: keyof Stroke, value: string | number) => {
    const { [key]: _, ...rest } = stroke;
    onChange(value === "" ? rest : { ...rest, [key]: value });
  };
  return (
    <Box role="group" aria-label={t("Pen of {name}", { name })} sx={{ ...GRID, mb: 0.5 }}>
      <Box sx={{ fontSize: 13, fontWeight: 600, lineHeight: 1.2 }}>
        {name}
        {about && (
          <Box component="span" sx={{ ml: 0.75, fontSize: 12, fontWeight: 400, color: "text.secondary" }}>
            {about}
          </Box>
        )}
      </Box>
      <LineSample stroke={stroke} penParts={penParts} />
      <Chosen
        label={t("Width of {name}", { name })}
        value={stroke.width ?? ""}
        disabled={disabled}
        choices={[
          ...as,
          ...withNow(penParts.widths, stroke.width).map(
            (w) => [w, t("{w} mm", { w: w.toFixed(2) })] as const,
          ),
        ]}
        onChoose={(v) => set("width", v)}
      />
      <ColourField
        label={t("Colour of {name}", { name })}
        value={stroke.colour ?? "#1b1f24"}
        disabled={disabled}
        onChange={(colour) => set("colour", colour)}
      />
      <Chosen
        label={t("Pattern of {name}", { name })}
        value={stroke.pattern ?? ""}
        disabled={disabled}
        choices={[...as, ...penParts.patterns.map((p) => [p.name, p.name] as const)]}
        onChoose={(v) => set("pattern", v)}
      />
      <Chosen
        label={t("Screening of {name}", { name })}
        value={stroke.screen ?? ""}
        disabled={disabled}
        choices={[...as, ...penParts.screens.map((s) => [s, `${s} %`] as const)]}
        onChoose={(v) => set("screen", v)}
      />
      {onRemove && !disabled ? (
        <Button
          aria-label={t("Remove the pen of {name}", { name })}
          onClick={onRemove}
          sx={{ minWidth: 0, px: 1, justifySelf: "start" }}
        >
          {t("Remove")}
        </Button>
      ) : (
        <span />
      )}
    </Box>
  );
}

const withNow = (widths: readonly number[], now: number | undefined) =>
  now === undefined || widths.includes(now) ? widths : [...widths, now].sort((a, b) => a - b);

/** A choice without a label of its own, in a row of a table. */
export function Chosen<V extends string | number>({
  label,
  value,
  choices,
  disabled,
  onChoose,
}: {
  label: string;
  value: V | "";
  choices: readonly (readonly [V | "", string])[];
  disabled: boolean;
  onChoose: (value: V | "") => void;
}) {
  return (
    <Select
      size="small"
      displayEmpty
      disabled={disabled}
      value={value}
      inputProps={{ "aria-label": label }}
      MenuProps={{ transitionDuration: 0 }}
      onChange={(event) => onChoose(event.target.value as V | "")}
    >
      {choices.map(([key, name]) => (
        <MenuItem key={String(key)} value={key} dense>
          {name}
        </MenuItem>
      ))}
    </Select>
  );
}
