/** A file of an unlikely size: what it would be, in other units too, and the answer. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, data, type SizeQuestion as Asked, type Unit } from "../../api/client";
import { notifyError } from "../../stores/notices";
import { unitName } from "./units";

/** x, y and z, as people say them. */
function sides(size: readonly number[]): string {
  const [by, unit] = Math.max(...size) < 1000 ? [1, "mm"] : [1000, "m"];
  const figures = size.map((mm) => (mm / by).toLocaleString("en", { maximumSignificantDigits: 3 }));
  return `${figures.join(" × ")} ${unit}`;
}

export function SizeQuestion({ asked }: { asked: Asked }) {
  const client = useQueryClient();
  const [answered, setAnswered] = useState(false);
  const answer = async (use: boolean, unit: Unit | "" = "") => {
    setAnswered(true);
    try {
      const params = { path: { job: asked.job } };
      await data(api.POST("/api/size-questions/{job}/answer/", { params, body: { use, unit } }));
    } catch (error) {
      notifyError(error);
      setAnswered(false);
    }
    for (const key of ["size-questions", "jobs", "projects"])
      await client.invalidateQueries({ queryKey: [key] });
  };
  return (
    <Alert severity="warning" sx={{ mt: 1.5 }}>
      <Box sx={{ mb: 1 }}>
        “{asked.file_name}” would be {sides(asked.size)} large
        {asked.before ? `; the version before is ${sides(asked.before)}. ` : ". "}
        Is that right?
      </Box>
      <Box sx={{ display: "flex", flexDirection: "column", alignItems: "flex-start", gap: 0.75 }}>
        {asked.units.slice(0, 3).map(({ unit, size }) => (
          <Button
            key={unit}
            variant="outlined"
            disabled={answered}
            onClick={() => void answer(true, unit as Unit)}
            sx={{ whiteSpace: "normal", textAlign: "left" }}
          >
            No: read as {unitName(unit as Unit).toLowerCase()}, {sides(size)}
          </Button>
        ))}
        <Button variant="outlined" disabled={answered} onClick={() => void answer(true)}>
          Yes, import it
        </Button>
        <Button disabled={answered} onClick={() => void answer(false)}>
          Don’t import it
        </Button>
      </Box>
    </Alert>
  );
}
