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

const NOTHING: never[] = [];

export function SymbolFields({ piece, edits }: Of<SymbolPieceSpec>) {
  const { spec } = piece;
  const { data: symbols = NOTHING } = useSymbols(piece.project);
  const own = symbols.find((s) => s.id === spec.symbol);
  const change = (to: Partial<SymbolPieceSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <Group name="Symbol">
      <Rows>
        <ChoiceField
          label="From the library"
          width={210}
          value={own?.id ?? ""}
          choices={[
            ...(own ? [] : [["", "no longer there"] as const]),
            ...symbols.map((s) => [s.id, s.name] as const),
          ]}
          onChoose={(symbol) => symbol && change({ symbol }, "which symbol it is")}
        />
        <Box sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}>
          <FigureField
            label="Turned (°)"
            number
            width={66}
            value={String(spec.turn)}
            onCommit={(turn) => change({ turn: ((Number(turn) % 360) + 360) % 360 }, "turn a symbol")}
          />
          <FigureField
            label="Size (×)"
            number
            width={60}
            value={String(spec.size)}
            onCommit={(size) => change({ size: Number(size) }, "size of a symbol")}
          />
          <ToggleButton
            on={spec.mirrored}
            name="Mirrored"
            tip="Left and right are exchanged"
            onToggle={() => change({ mirrored: !spec.mirrored }, "mirror a symbol")}
          />
        </Box>
      </Rows>
      {(own?.spec.words ?? []).length > 0 && (
        <Rows>
          {own?.spec.words.slice(0, 2).map((place, k) => (
            <FigureField
              key={k}
              label={own.spec.words.length > 1 ? `Words ${k + 1}` : "Words"}
              width={120}
              value={spec.words[k] ?? ""}
              placeholder={place.text}
              onCommit={(text) => {
                const words = own.spec.words.map((_, n) => (n === k ? text : (spec.words[n] ?? "")));
                change({ words }, "words of a symbol");
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
    change({ crop: to as ImageSpec["crop"] }, "crop a picture");
  };
  return (
    <>
      <Group name="Picture">
        <Rows>
          <PictureField
            project={piece.project}
            pictures={pictures}
            label="Shows"
            first={["", "no longer there"]}
            value={pictures.some((p) => p.id === spec.picture) ? spec.picture : ""}
            width={196}
            onChoose={(picture) => picture && change({ picture }, "which picture it is")}
          />
          <FigureField
            label="Width of all of it"
            unit="mm"
            number
            width={136}
            value={String(spec.width)}
            onCommit={(width) => change({ width: Number(width) }, "size of a picture")}
          />
        </Rows>
      </Group>
      <Group name="Cut off (%)">
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
const CROPS = { 0: "Left", 1: "Foot", 2: "Right", 3: "Top" } as const;
