/** A free table: its heading and borders, its cells in a dialog, and the file that they come from. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useRef, useState } from "react";
import { csrfToken, errorOf, type TableFile, type TableSpec } from "../../../api/client";
import { useTableFiles } from "../../../api/annotations";
import { queryClient } from "../../../api/queryClient";
import { ChoiceField } from "../../../components/ChoiceField";
import { FigureField } from "../../../components/FigureField";
import { Buttons, Group, Rows } from "../../../components/Ledge";
import { ToggleButton } from "../../../components/ToggleButton";
import { notifyError } from "../../../stores/notices";
import { BORDERS } from "./pieceChoices";
import type { Of } from "./pieceProps";
import { TableDialog } from "./TableDialog";
import { TextStyleField } from "./TextStyleField";
import { t } from "../../../words/words";

const NOTHING: never[] = [];

/** Bring a CSV or XLSX in; one of a name that is there takes its place. */
async function bringIn(project: string, file: File): Promise<TableFile> {
  const body = new FormData();
  body.set("project", project);
  body.set("upload", file);
  const headers = { "X-CSRFToken": csrfToken() };
  const response = await fetch("/api/table-files/", { method: "POST", body, headers });
  if (!response.ok) throw await errorOf(response);
  const made = (await response.json()) as TableFile;
  await queryClient.invalidateQueries({ queryKey: ["table-files", project] });
  await queryClient.invalidateQueries({ queryKey: ["display"] });
  return made;
}

export function TableFields({ piece, edits }: Of<TableSpec>) {
  const { spec } = piece;
  const [editing, setEditing] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const { data: files = NOTHING } = useTableFiles(piece.project);
  const file = files.find((f) => f.id === spec.file);
  const change = (to: Partial<TableSpec>, what: string) => void edits.changeSpec(piece, to, what);
  const upload = async (chosen: File | undefined) => {
    if (!chosen) return;
    try {
      const { id, cells, hash } = await bringIn(piece.project, chosen);
      change({ cells, file: id, file_hash: hash, merged: [], widths: [] }, t("take a table from a file"));
    } catch (error) {
      notifyError(error);
    }
  };
  return (
    <>
      <Group name={t("Table")}>
        <Rows>
          <FigureField
            label={t("Heading")}
            width={170}
            value={spec.title}
            placeholder={t("none")}
            onCommit={(title) => change({ title }, t("heading of a table"))}
          />
          <Buttons>
            <Button variant="contained" onClick={() => setEditing(true)}>
              {t("Cells…")}
            </Button>
            <ToggleButton
              on={spec.header}
              name={t("Captions")}
              tip={t("The first row holds the captions of the columns")}
              onToggle={() => change({ header: !spec.header }, t("captions or not"))}
            />
          </Buttons>
        </Rows>
        <Rows>
          <ChoiceField
            label={t("Lines")}
            width={150}
            value={spec.borders}
            choices={BORDERS}
            onChoose={(to) => change({ borders: to as TableSpec["borders"] }, t("lines of a table"))}
          />
          <FigureField
            label={t("Rows in one column")}
            number
            width={150}
            value={spec.split ? String(spec.split) : ""}
            placeholder={t("all")}
            onCommit={(rows) => change({ split: Math.max(0, Math.round(Number(rows))) }, t("split a table"))}
          />
        </Rows>
      </Group>
      <Group name={t("Lettering")}>
        <TextStyleField
          project={piece.project}
          named={spec.named}
          onChoose={(named) => change({ named }, t("text style of a table"))}
        />
      </Group>
      <Group name={t("From a file")}>
        <Rows>
          <Box sx={{ fontSize: 12.5, width: 168, pt: 0.5, color: "text.secondary", lineHeight: 1.35 }}>
            {file ? file.name : spec.file ? t("Its file is no longer here.") : t("Its cells are typed.")}
          </Box>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            <Tooltip
              title={t("A CSV, or the first sheet of a workbook; brought in again, it is told as newer")}
            >
              <Button variant="outlined" onClick={() => input.current?.click()}>
                {file ? t("Newer file…") : t("CSV or XLSX…")}
              </Button>
            </Tooltip>
            {spec.file && (
              <Button
                variant="outlined"
                onClick={() => change({ file: "", file_hash: "" }, t("a table without its file"))}
              >
                {t("Release")}
              </Button>
            )}
          </Box>
          <input
            ref={input}
            type="file"
            hidden
            aria-label={t("File of the table")}
            accept=".csv,.xlsx,.txt"
            onChange={(event) => {
              void upload(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
        </Rows>
      </Group>
      <Group name={t("Out")}>
        <Buttons>
          <Button variant="outlined" component="a" href={`/api/annotations/${piece.id}/csv/`} download>
            {t("CSV")}
          </Button>
          <Button variant="outlined" component="a" href={`/api/annotations/${piece.id}/xlsx/`} download>
            {t("XLSX")}
          </Button>
        </Buttons>
      </Group>
      {editing && (
        <TableDialog
          spec={spec}
          onClose={() => setEditing(false)}
          onDone={(to) => {
            setEditing(false);
            change(to, t("cells of a table"));
          }}
        />
      )}
    </>
  );
}
