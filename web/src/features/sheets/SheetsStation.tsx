/** The Sheets station: as soon as what is painted of a sheet is there, the set is composed. */
import Box from "@mui/material/Box";
import { useEffect, useState } from "react";
import { useParams } from "react-router-dom";
import type { Project } from "../../api/client";
import { askTogether, BESIDE, PAINTED } from "../../api/together";
import { STATION } from "../../components/stationLayout";
import { Composing } from "./Composing";
import { EMPTY_LIST } from "./Register";
import { useArrived } from "./useSet";

export function SheetsStation({ project }: { project: Project }) {
  const { sheetId } = useParams();
  // Before the lists ask one by one.
  useEffect(() => askTogether(project.id, [...PAINTED, ...BESIDE]), [project.id]);
  const [arrived, setArrived] = useState(false);
  const now = useArrived(project.id, sheetId);
  // Once it is there it stays, though the first sheet of an empty register has still to be composed.
  if (now && !arrived) setArrived(true);
  return arrived ? <Composing project={project} /> : <Box sx={STATION}>{EMPTY_LIST}</Box>;
}
