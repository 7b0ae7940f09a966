/** How what each tool of annotation makes is to be. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { useListedNotes, useSymbols } from "../../../api/annotations";
import { useElementSources } from "../../../api/buildings";
import { usePictures } from "../../../api/sheets";
import { ChoiceField } from "../../../components/ChoiceField";
import { choicesOf } from "../../../components/choices";
import { Buttons, Group, Rows } from "../../../components/Ledge";
import { useAnnotating, type Tool } from "../../../stores/annotating";
import { PictureField } from "../PictureField";
import {
  ARRANGEMENTS,
  FILLS,
  FORMS,
  HATCHES,
  LEADERS,
  MARKS,
  MEASURED,
  MEASURES,
  PATTERNS,
  STYLES,
  TAG_WORDS,
  WIDTHS,
} from "./pieceChoices";
import { useNamed } from "./pieceProps";
import { ValueChoice } from "./ValueChoice";
import { t } from "../../../words/words";

type Options = ReturnType<typeof useAnnotating.getState>;

const WANTED = choicesOf<Options["measures"]>({
  pointer: t("By the pointer"),
  ...(Object.fromEntries(MEASURES) as Record<"horizontal" | "vertical" | "aligned", string>),
  along: t("All along a line"),
});
const NOTHING: never[] = [];
const set = (to: Partial<Options>) => useAnnotating.setState(to);

export type ListDialog = "notes" | "styles" | "symbols";

interface Given {
  project: string;
  /** Open one of the project's lists that a tool takes from. */
  onAsk: (list: ListDialog) => void;
}

/** How what each tool makes is to be. */
export const OPTIONS: Partial<Record<Tool, (given: Given) => ReactNode>> = {
  dimension: (given) => <OfDimension {...given} />,
  measure: (given) => <OfMeasure {...given} />,
  note: (given) => <OfNote {...given} />,
  numbered: (given) => <OfNumbered {...given} />,
  tag: (given) => <OfTag {...given} />,
  shape: () => <OfShape />,
  symbol: (given) => <OfSymbol {...given} />,
  image: (given) => <OfImage {...given} />,
};

function Figures({ project, onAsk }: Given) {
  const { style, dimensionStyle } = useAnnotating();
  const named = useNamed(project, "dimension");
  const known = named.some(([id]) => id === dimensionStyle);
  return (
    <>
      <ChoiceField
        label={t("Figures in")}
        width={128}
        value={known ? dimensionStyle : style}
        choices={[...STYLES, ...named]}
        onChoose={(to) =>
          named.some(([id]) => id === to)
            ? set({ dimensionStyle: to })
            : set({ dimensionStyle: "", style: to as Options["style"] })
        }
      />
      <Buttons>
        <Button variant="outlined" onClick={() => onAsk("styles")}>
          {t("Styles…")}
        </Button>
      </Buttons>
    </>
  );
}

function OfDimension(given: Given) {
  const { measures, arrangement } = useAnnotating();
  return (
    <Group name={t("How")}>
      <ChoiceField
        label={t("Measures")}
        width={128}
        value={measures}
        choices={WANTED}
        onChoose={(to) => set({ measures: to as Options["measures"], points: [] })}
      />
      <ChoiceField
        label={t("Lengths")}
        width={156}
        value={arrangement}
        choices={ARRANGEMENTS}
        onChoose={(to) => set({ arrangement: to as Options["arrangement"] })}
      />
      <Figures {...given} />
    </Group>
  );
}

function OfMeasure(given: Given) {
  const measure = useAnnotating((s) => s.measure);
  return (
    <Group name={t("How")}>
      <ChoiceField
        label={t("Measures")}
        width={112}
        value={measure}
        choices={MEASURED}
        onChoose={(to) => set({ measure: to as Options["measure"], points: [] })}
      />
      <Figures {...given} />
    </Group>
  );
}

function OfNote({ project, onAsk }: Given) {
  const { leader, textStyle } = useAnnotating();
  const named = useNamed(project, "text");
  return (
    <Group name={t("How")}>
      <ChoiceField
        label={t("Leader")}
        width={124}
        value={leader}
        choices={LEADERS}
        onChoose={(to) => set({ leader: to as Options["leader"] })}
      />
      <ChoiceField
        label={t("Style")}
        width={118}
        value={named.some(([id]) => id === textStyle) ? textStyle : ""}
        choices={[["", t("Custom")], ...named]}
        onChoose={(to) => set({ textStyle: to })}
      />
      <Buttons>
        <Button variant="outlined" onClick={() => onAsk("styles")}>
          {t("Styles…")}
        </Button>
      </Buttons>
    </Group>
  );
}

function OfNumbered({ project, onAsk }: Given) {
  const { note, mark, leader } = useAnnotating();
  const { data: notes = NOTHING } = useListedNotes(project);
  return (
    <Group name={t("How")}>
      <ChoiceField
        label={t("Note of the list")}
        width={190}
        value={notes.some((n) => n.id === note) ? note : ""}
        choices={[["", t("Choose one")], ...notes.map((n) => [n.id, `${n.number}  ${n.text}`] as const)]}
        onChoose={(to) => set({ note: to })}
      />
      <ChoiceField
        label={t("Mark")}
        width={88}
        value={mark}
        choices={MARKS}
        onChoose={(to) => set({ mark: to as Options["mark"] })}
      />
      <ChoiceField
        label={t("Leader")}
        width={124}
        value={leader}
        choices={LEADERS}
        onChoose={(to) => set({ leader: to as Options["leader"] })}
      />
      <Buttons>
        <Button variant="outlined" onClick={() => onAsk("notes")}>
          {t("List…")}
        </Button>
      </Buttons>
    </Group>
  );
}

function OfTag({ project }: Given) {
  const tag = useAnnotating((s) => s.tag);
  const { data: sources = NOTHING } = useElementSources(project);
  return (
    <Group name={t("How")}>
      <ChoiceField
        label={t("Shows")}
        width={136}
        value={tag.shows}
        choices={TAG_WORDS}
        onChoose={(to) => set({ tag: { ...tag, shows: to as typeof tag.shows } })}
      />
      {tag.shows === "value" && (
        <ValueChoice
          label={t("Value")}
          value={tag.source}
          sources={sources}
          onChoose={(source) => set({ tag: { ...tag, source } })}
        />
      )}
    </Group>
  );
}

function OfShape() {
  const shape = useAnnotating((s) => s.shape);
  const change = (to: Partial<typeof shape>) => set({ shape: { ...shape, ...to } });
  return (
    <Group name={t("How")}>
      <Rows>
        <ChoiceField
          label={t("Form")}
          width={118}
          value={shape.form}
          choices={FORMS}
          onChoose={(to) => {
            change({ form: to as typeof shape.form });
            set({ points: [] });
          }}
        />
        <ChoiceField
          label={t("Fill")}
          width={118}
          value={shape.fill}
          choices={FILLS}
          onChoose={(fill) => change({ fill: fill as typeof shape.fill })}
        />
      </Rows>
      <Rows>
        <Box sx={{ display: "flex", gap: 0.75 }}>
          <ChoiceField
            label={t("Line")}
            width={92}
            value={String(shape.width)}
            choices={WIDTHS}
            onChoose={(width) => change({ width: Number(width) })}
          />
          <ChoiceField
            label={t("Pattern")}
            width={112}
            value={shape.pattern}
            choices={PATTERNS}
            onChoose={(to) => change({ pattern: to as typeof shape.pattern })}
          />
        </Box>
        <ChoiceField
          label={t("Hatch")}
          width={112}
          value={shape.hatch}
          choices={HATCHES}
          onChoose={(to) => change({ hatch: to as typeof shape.hatch })}
        />
      </Rows>
    </Group>
  );
}

function OfSymbol({ project, onAsk }: Given) {
  const symbol = useAnnotating((s) => s.symbol);
  const { data: symbols = NOTHING } = useSymbols(project);
  return (
    <Group name={t("How")}>
      <ChoiceField
        label={t("Symbol")}
        width={220}
        value={symbols.some((s) => s.id === symbol) ? symbol : ""}
        choices={[["", t("Choose one")], ...symbols.map((s) => [s.id, s.name] as const)]}
        onChoose={(to) => set({ symbol: to })}
      />
      <Buttons>
        <Button variant="outlined" onClick={() => onAsk("symbols")}>
          {t("Library…")}
        </Button>
      </Buttons>
    </Group>
  );
}

function OfImage({ project }: Given) {
  const picture = useAnnotating((s) => s.picture);
  const { data: pictures = NOTHING } = usePictures(project);
  return (
    <Group name={t("How")}>
      <PictureField
        project={project}
        pictures={pictures}
        first={["", t("Choose one")]}
        value={pictures.some((p) => p.id === picture) ? picture : ""}
        width={220}
        onChoose={(to) => set({ picture: to })}
      />
    </Group>
  );
}
