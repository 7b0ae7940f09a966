/** How a drawing stands to the model: in a word and a shape, not in a colour alone. */
import Box from "@mui/material/Box";
import { colours } from "../theme/theme";

const LOOKS = {
  fresh: ["fresh", colours.sea, "●"],
  behind: ["behind", colours.rust, "◐"],
  held: ["held", colours.ink, "■"],
  undrawn: ["not drawn yet", colours.inkSoft, "○"],
} as const;

export function StateMark({ state }: { state: keyof typeof LOOKS }) {
  const [word, colour, shape] = LOOKS[state];
  return (
    <Box component="span" sx={{ color: colour, fontSize: 11.5, fontWeight: 600, whiteSpace: "nowrap" }}>
      <span aria-hidden style={{ fontSize: 9, marginRight: 3 }}>
        {shape}
      </span>
      {word}
    </Box>
  );
}
