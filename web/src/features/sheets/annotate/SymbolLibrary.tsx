/** The library of symbols: those that are built in, and the project's own from files or from drawn shapes. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useRef, useState } from "react";
import { csrfToken, errorOf, type LibrarySymbol, type SymbolDrawing } from "../../../api/client";
import { useSymbols } from "../../../api/annotations";
import { FigureField } from "../../../components/FigureField";
import { TitledDialog } from "../../../components/TitledDialog";
import { ToggleButton } from "../../../components/ToggleButton";
import { useAnnotating } from "../../../stores/annotating";
import { notify, notifyError } from "../../../stores/notices";
import { commit } from "../../../sync/commands";
import { changing, deleting, making, newId } from "../../../sync/rows";
import { colours } from "../../../theme/theme";
import { t } from "../../../words/words";

const NOTHING: never[] = [];
const SIZE = 84;

interface Read {
  name: string;
  spec: SymbolDrawing;
}

/** The symbols in an SVG or a DXF. */
async function read(project: string, file: File): Promise<Read[]> {
  const body = new FormData();
  body.set("project", project);
  body.set("upload", file);
  const headers = { "X-CSRFToken": csrfToken() };
  const response = await fetch("/api/symbols/read/", { method: "POST", body, headers });
  if (!response.ok) throw await errorOf(response);
  return (await response.json()) as Read[];
}

export function SymbolLibrary({ project, onClose }: { project: string; onClose: () => void }) {
  const { data: symbols = NOTHING } = useSymbols(project);
  const used = useAnnotating((s) => s.symbol);
  const [chosen, setChosen] = useState(used);
  const input = useRef<HTMLInputElement>(null);
  const own = symbols.find((s) => s.id === chosen);
  const add = (found: readonly Read[]) => {
    const rows = found.map(({ name, spec }) => ({ id: newId(), project, name, spec }));
    const what =
      rows.length === 1 && rows[0]
        ? t("add the symbol “{name}”", { name: rows[0].name })
        : t("add {count} symbols", { count: rows.length });
    void commit(
      project,
      what,
      rows.map((row) => making("symbols", row)),
    );
    setChosen(rows[0]?.id ?? "");
  };
  const change = (to: Partial<LibrarySymbol>) =>
    own && void commit(project, t("the symbol “{name}”", { name: own.name }), [changing("symbols", own, to)]);
  return (
    <TitledDialog
      title={t("Library of symbols")}
      width="md"
      onClose={onClose}
      foot={
        <>
          <Button variant="outlined" onClick={() => input.current?.click()}>
            {t("From an SVG or DXF…")}
          </Button>
          <input
            ref={input}
            type="file"
            hidden
            aria-label={t("File of symbols")}
            accept=".svg,.dxf"
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = "";
              if (file)
                read(project, file)
                  .then((found) => {
                    add(found);
                    notify(
                      found.length === 1
                        ? t("A symbol was added.")
                        : t("{count} symbols were added.", { count: found.length }),
                    );
                  })
                  .catch(notifyError);
            }}
          />
          <Button onClick={onClose} sx={{ ml: "auto" }}>
            {t("Close")}
          </Button>
          <Button
            variant="contained"
            disabled={!own}
            onClick={() => {
              useAnnotating.setState({ symbol: chosen });
              onClose();
            }}
          >
            {t("Use this one")}
          </Button>
        </>
      }
    >
      <Box
        role="listbox"
        aria-label={t("Symbols")}
        sx={{
          display: "grid",
          gridTemplateColumns: "repeat(auto-fill, minmax(116px, 1fr))",
          gap: 0.75,
          maxHeight: "46vh",
          overflowY: "auto",
        }}
      >
        {symbols.map((symbol) => (
          <Box
            key={symbol.id}
            component="button"
            type="button"
            role="option"
            aria-selected={symbol.id === chosen}
            onClick={() => setChosen(symbol.id)}
            sx={{
              font: "inherit",
              fontSize: 12,
              lineHeight: 1.25,
              color: "text.primary",
              p: 0.75,
              cursor: "pointer",
              bgcolor: symbol.id === chosen ? colours.rustPale : colours.paper,
              border: `1px solid ${symbol.id === chosen ? colours.rust : colours.sandDeep}`,
              borderRadius: "3px",
            }}
          >
            <SymbolPicture spec={symbol.spec} />
            {symbol.name}
          </Box>
        ))}
      </Box>
      {own && !own.built_in && (
        <Box sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}>
          <FigureField
            label={t("Name")}
            width={220}
            value={own.name}
            onCommit={(name) => name && change({ name })}
          />
          <ToggleButton
            on={own.spec.real}
            name={t("Of real size")}
            tip={t("As large as the scale makes it; else it has its size on paper, whatever the scale")}
            onToggle={() => change({ spec: { ...own.spec, real: !own.spec.real } })}
          />
          <Button
            onClick={() => {
              setChosen("");
              void commit(project, t("delete the symbol “{name}”", { name: own.name }), [
                deleting("symbols", own),
              ]);
            }}
          >
            {t("Delete")}
          </Button>
        </Box>
      )}
      {own?.built_in && (
        <Box sx={{ display: "flex", gap: 1, alignItems: "center", fontSize: 13, color: "text.secondary" }}>
          {t("Built in, cannot be changed.")}
          <Button
            variant="outlined"
            onClick={() => add([{ name: t("{name}, copy", { name: own.name }), spec: own.spec }])}
          >
            {t("Copy and edit")}
          </Button>
        </Box>
      )}
    </TitledDialog>
  );
}

/** A symbol as large as its place lets it be. */
function SymbolPicture({ spec }: { spec: SymbolDrawing }) {
  const points = spec.lines.flatMap((line) => line.points);
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  const size = Math.max(Math.max(...xs) - x, Math.max(...ys) - y, 1e-6);
  const [width, height] = [Math.max(...xs) - x, Math.max(...ys) - y];
  const about = size * 0.06;
  return (
    <svg
      width="100%"
      height={SIZE}
      viewBox={`${x - about} ${-(y + height) - about} ${width + 2 * about} ${height + 2 * about}`}
      aria-hidden
    >
      {spec.lines.map((line, k) => (
        <polyline
          key={k}
          points={[...line.points, ...(line.closed ? line.points.slice(0, 1) : [])]
            .map(([px, py]) => `${px},${-py}`)
            .join(" ")}
          fill={line.closed && line.fill ? line.fill : "none"}
          stroke={line.width ? line.colour : "none"}
          strokeWidth={1}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}
