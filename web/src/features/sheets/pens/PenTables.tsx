/** The pen tables of a project: which there are, what each draws with, and where it is used. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import Dialog from "@mui/material/Dialog";
import { useState } from "react";
import type { ModelVersion, PenParts, PenTable, Register } from "../../../api/client";
import { useSheets, useViewports } from "../../../api/sheets";
import { commit } from "../../../sync/commands";
import { duplicate, knownOf, remove, rename, write, type Known } from "../../../sync/namedRows";
import { changing } from "../../../sync/rows";
import { FigureField } from "../../../components/FigureField";
import { colours } from "../../../theme/theme";
import { CutRows } from "./CutRows";
import { usersOf } from "./users";
import { LayerRows, RoleRows } from "./StrokeRows";
import { TableSample } from "./samples";
import { t } from "../../../words/words";

interface Props {
  register: Register;
  version: ModelVersion | undefined;
  penParts: PenParts;
  tables: readonly PenTable[];
  /** The table that is looked at first. */
  first: string;
  onClose: () => void;
}

const PARTS = [
  ["roles", t("Line roles")],
  ["layers", t("Layers")],
  ["cuts", t("What is cut")],
] as const;

export function PenTables({ register, version, penParts, tables, first, onClose }: Props) {
  const [key, setKey] = useState(first);
  const [part, setPart] = useState<(typeof PARTS)[number][0]>("roles");
  const { data: sheets = [] } = useSheets(register.project);
  const { data: viewports = [] } = useViewports(register.project);
  const known = knownOf<"pen_tables">(tables);
  const table = known.find((each) => each.key === key) ?? known[0];
  if (!table) return null;
  const users = usersOf(table.key, register, sheets, viewports);
  const giveToAll = () =>
    commit(register.project, t("draw the set with “{name}”", { name: table.name }), [
      changing("registers", register, { pen_table: table.key }),
    ]);
  return (
    <Dialog
      open
      onClose={onClose}
      maxWidth={false}
      transitionDuration={0}
      slotProps={{
        paper: {
          "aria-label": t("Pen tables"),
          sx: {
            width: "min(1170px, 95vw)",
            height: "min(680px, 92vh)",
            display: "flex",
            flexDirection: "row",
          },
        },
      }}
    >
      <Box
        component="nav"
        aria-label={t("Pen tables")}
        sx={{
          width: 218,
          flexShrink: 0,
          borderRight: `1px solid ${colours.sandDeep}`,
          bgcolor: "background.default",
          overflowY: "auto",
          p: 1,
        }}
      >
        <Box component="h2" sx={{ m: 0, px: 1, py: 0.75, fontSize: 14, fontWeight: 650 }}>
          {t("Pen tables")}
        </Box>
        {known.map((each) => (
          <Choice
            key={each.key}
            table={each}
            penParts={penParts}
            users={usersOf(each.key, register, sheets, viewports)}
            chosen={each.key === table.key}
            onChoose={() => setKey(each.key)}
          />
        ))}
      </Box>
      <Box sx={{ flex: 1, minWidth: 0, display: "flex", flexDirection: "column" }}>
        <Box
          sx={{
            display: "flex",
            alignItems: "flex-end",
            gap: 1,
            px: 2,
            pt: 1.5,
            pb: 1.25,
            borderBottom: `1px solid ${colours.sandDeep}`,
          }}
        >
          {table.own ? (
            <FigureField
              label={t("Name")}
              width={210}
              value={table.name}
              onCommit={(name) => name && table.own && void rename("pen_tables", table.own, name)}
            />
          ) : (
            <Box sx={{ width: 250 }}>
              <Box sx={{ fontSize: 14, fontWeight: 650 }}>{table.name}</Box>
              <Box sx={{ fontSize: 12, color: "text.secondary" }}>
                {t("Built in. Make a copy to change it.")}
              </Box>
            </Box>
          )}
          <Button
            variant={table.own ? "outlined" : "contained"}
            onClick={() => setKey(duplicate("pen_tables", register.project, table))}
          >
            {table.own ? t("Duplicate") : t("Make a copy")}
          </Button>
          {register.pen_table !== table.key && (
            <Button variant="outlined" onClick={() => void giveToAll()}>
              {t("Draw the set with it")}
            </Button>
          )}
          {table.own && (
            <Button
              disabled={users.length > 0}
              title={users.length ? t("Used by {users}", { users: users.join(", ") }) : ""}
              onClick={() => {
                setKey(register.pen_table);
                if (table.own) void remove("pen_tables", table.own);
              }}
            >
              {t("Delete")}
            </Button>
          )}
          <Button variant="outlined" onClick={onClose} sx={{ ml: "auto" }}>
            {t("Close")}
          </Button>
        </Box>
        <Box
          role="tablist"
          aria-label={t("Parts of the table")}
          sx={{ display: "flex", gap: 0.5, px: 2, pt: 1 }}
        >
          {PARTS.map(([name, words]) => (
            <Button
              key={name}
              role="tab"
              aria-selected={part === name}
              onClick={() => setPart(name)}
              sx={{
                color: "text.primary",
                borderRadius: 0,
                boxShadow: part === name ? `inset 0 -2px 0 ${colours.rust}` : "none",
              }}
            >
              {words}
            </Button>
          ))}
        </Box>
        <Box
          role="tabpanel"
          aria-label={PARTS.find(([name]) => name === part)?.[1]}
          sx={{ flex: 1, overflow: "auto", p: 2 }}
        >
          <Rows
            part={part}
            table={table}
            penParts={penParts}
            layers={Object.keys(version?.facts.layers ?? {})}
          />
        </Box>
      </Box>
    </Dialog>
  );
}

function Rows({
  part,
  table,
  penParts,
  layers,
}: {
  part: (typeof PARTS)[number][0];
  table: Known<"pen_tables">;
  penParts: PenParts;
  layers: readonly string[];
}) {
  const { spec, own } = table;
  const set = (to: Partial<PenTable["spec"]>, what: string) => own && void write("pen_tables", own, to, what);
  if (part === "roles")
    return (
      <RoleRows
        penParts={penParts}
        strokes={spec.roles}
        disabled={!own}
        onChange={(roles) => set({ roles: roles as PenTable["spec"]["roles"] }, "pens")}
      />
    );
  if (part === "layers")
    return (
      <LayerRows
        penParts={penParts}
        strokes={spec.layers}
        layers={layers}
        disabled={!own}
        onChange={(changed) => set({ layers: changed }, t("pens of layers"))}
      />
    );
  return (
    <CutRows
      key={table.key}
      penParts={penParts}
      cuts={spec.cuts}
      disabled={!own}
      onChange={(cuts) => set({ cuts: [...cuts] }, t("what is cut"))}
    />
  );
}

function Choice({
  table,
  penParts,
  users,
  chosen,
  onChoose,
}: {
  table: Known<"pen_tables">;
  penParts: PenParts;
  users: string[];
  chosen: boolean;
  onChoose: () => void;
}) {
  return (
    <ButtonBase
      onClick={onChoose}
      aria-current={chosen ? "true" : undefined}
      aria-label={t("Pen table {name}", { name: table.name })}
      sx={{
        display: "flex",
        width: "100%",
        justifyContent: "flex-start",
        textAlign: "left",
        gap: 1,
        p: 0.75,
        mb: 0.25,
        borderRadius: 1,
        bgcolor: chosen ? colours.sand : "transparent",
        boxShadow: chosen ? `inset 3px 0 0 ${colours.rust}` : "none",
      }}
    >
      <Box sx={{ ml: 0.5, border: `1px solid ${colours.sandDeep}`, bgcolor: colours.paper, p: 0.25 }}>
        <TableSample spec={table.spec} penParts={penParts} />
      </Box>
      <Box sx={{ minWidth: 0 }}>
        <Box sx={{ fontSize: 12.5, fontWeight: 600, lineHeight: 1.25 }}>{table.name}</Box>
        <Box
          sx={{
            fontSize: 11.5,
            color: "text.secondary",
            overflow: "hidden",
            textOverflow: "ellipsis",
            whiteSpace: "nowrap",
          }}
          title={users.join(", ")}
        >
          {users.length ? users.join(", ") : table.own ? t("not used") : t("built in")}
        </Box>
      </Box>
    </ButtonBase>
  );
}
