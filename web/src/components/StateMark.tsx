/** How a drawing stands to the model: in a word and a shape, not in a colour alone. */
import Box from "@mui/material/Box";
import { colours } from "../theme/theme";
import { t } from "../words/words";

const MARKS = {
  up_to_date: [t("Up to date"), colours.sea, "●"],
  out_of_date: [t("Out of date"), colours.rust, "◐"],
  held: [t("Held"), colours.ink, "■"],
  undrawn: [t("Not drawn"), colours.inkSoft, "○"],
} as const;

export function StateMark({ state }: { state: keyof typeof MARKS }) {
  const [word, colour, shape] = MARKS[state];
  return (
    <Box component="span" sx={{ color: colour, fontSize: 11.5, fontWeight: 600, whiteSpace: "nowrap" }}>
      <span aria-hidden style={{ fontSize: 9, marginRight: 3 }}>
        {shape}
      </span>
      {word}
    </Box>
  );
}
