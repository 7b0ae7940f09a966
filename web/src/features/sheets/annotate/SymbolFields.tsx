/** Which symbol or picture it is, how large, how it lies, and what is left out of it. */
import Box from "@mui/material/Box";
import type { ImageSpec, SymbolPieceSpec } from "../../../api/client";
import { useSymbols } from "../../../api/annotations";
import { usePictures } from "../../../api/sheets";
import { ChoiceField } from "../../../components/ChoiceField";
import { FigureField } from "../../../components/FigureField";
import { Group, Rows } from "../../../components/Ledge";
import { ToggleButton } from "../../../components/ToggleButton";
import { PictureField } from "../PictureField";
import type { Of } from "./pieceProps";
import { t } from "../../../words/words";

const NOTHING: never[] = [];

export function SymbolFields({ piece, edits }: Of<SymbolPieceSpec>) {
  const { spec } = piece;
  const { data: symbols = NOTHING } = useSymbols(piece.project);
  const own = symbols.find((s) => s.id === spec.symbol);
  const change = (to: Partial<SymbolPieceSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <Group name={t("Symbol")}>
      <Rows>
        <ChoiceField
          label={t("From the library")}
          width={210}
          value={own?.id ?? ""}
          choices={[
            ...(own ? [] : [["", t("no longer there")] as const]),
            ...symbols.map((s) => [s.id, s.name] as const),
          ]}
          onChoose={(symbol) => symbol && change({ symbol }, t("which symbol it is"))}
        />
        <Box sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}>
          <FigureField
            label={t("Turned (°)")}
            number
            width={66}
            value={String(spec.turn)}
            onCommit={(turn) => change({ turn: ((Number(turn) % 360) + 360) % 360 }, t("turn a symbol"))}
          />
          <FigureField
            label={t("Size (×)")}
            number
            width={60}
            value={String(spec.size)}
            onCommit={(size) => change({ size: Number(size) }, t("size of a symbol"))}
          />
          <ToggleButton
            on={spec.mirrored}
            name={t("Mirrored")}
            tip={t("Left and right are exchanged")}
            onToggle={() => change({ mirrored: !spec.mirrored }, t("mirror a symbol"))}
          />
        </Box>
      </Rows>
      {(own?.spec.words ?? []).length > 0 && (
        <Rows>
          {own?.spec.words.slice(0, 2).map((place, k) => (
            <FigureField
              key={k}
              label={own.spec.words.length > 1 ? t("Words {k}", { k: k + 1 }) : t("Words")}
              width={120}
              value={spec.words[k] ?? ""}
              placeholder={place.text}
              onCommit={(text) => {
                const words = own.spec.words.map((_, n) => (n === k ? text : (spec.words[n] ?? "")));
                change({ words }, t("words of a symbol"));
              }}
            />
          ))}
        </Rows>
      )}
    </Group>
  );
}

export function ImageFields({ piece, edits }: Of<ImageSpec>) {
  const { spec } = piece;
  const { data: pictures = NOTHING } = usePictures(piece.project);
  const change = (to: Partial<ImageSpec>, what: string) => void edits.changeSpec(piece, to, what);
  const crop = (k: number, percent: string) => {
    const to = spec.crop.map((share, n) => (n === k ? Number(percent) / 100 : share));
    change({ crop: to as ImageSpec["crop"] }, t("crop a picture"));
  };
  return (
    <>
      <Group name={t("Picture")}>
        <Rows>
          <PictureField
            project={piece.project}
            pictures={pictures}
            label={t("Shows")}
            first={["", t("no longer there")]}
            value={pictures.some((p) => p.id === spec.picture) ? spec.picture : ""}
            width={196}
            onChoose={(picture) => picture && change({ picture }, t("which picture it is"))}
          />
          <FigureField
            label={t("Width of all of it")}
            unit="mm"
            number
            width={136}
            value={String(spec.width)}
            onCommit={(width) => change({ width: Number(width) }, t("size of a picture"))}
          />
        </Rows>
      </Group>
      <Group name={t("Cut off (%)")}>
        {[[0, 2] as const, [3, 1] as const].map((pair) => (
          <Rows key={pair[0]}>
            {pair.map((k) => (
              <FigureField
                key={k}
                label={CROPS[k]}
                number
                width={68}
                value={String(Math.round((spec.crop[k] ?? 0) * 1000) / 10)}
                onCommit={(percent) => crop(k, percent)}
              />
            ))}
          </Rows>
        ))}
      </Group>
    </>
  );
}
const CROPS = { 0: t("Left"), 1: t("Foot"), 2: t("Right"), 3: t("Top") } as const;
