/** A file of an unlikely size: what it would be, in other units too, and the answer. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, data, type SizeQuestion as Question, type Unit } from "../../api/client";
import { notifyError } from "../../stores/notices";
import { unitName } from "./units";
import { inSentence, t } from "../../words/words";

/** x, y and z, as people say them. */
function sides(size: readonly number[]): string {
  const [by, unit] = Math.max(...size) < 1000 ? [1, "mm"] : [1000, "m"];
  const figures = size.map((mm) => (mm / by).toLocaleString("en", { maximumSignificantDigits: 3 }));
  return `${figures.join(" × ")} ${unit}`;
}

export function SizeQuestion({ asked }: { asked: Question }) {
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
        {t("“{fileName}” would be {size} large{which}Is that right?", {
          fileName: asked.file_name,
          size: sides(asked.size),
          which: asked.before ? t("; the version before is {size}. ", { size: sides(asked.before) }) : ". ",
        })}
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
            {t("No: read as {unit}, {size}", {
              unit: inSentence(unitName(unit as Unit)),
              size: sides(size),
            })}
          </Button>
        ))}
        <Button variant="outlined" disabled={answered} onClick={() => void answer(true)}>
          {t("Yes, import it")}
        </Button>
        <Button disabled={answered} onClick={() => void answer(false)}>
          {t("Don’t import it")}
        </Button>
      </Box>
    </Alert>
  );
}
