/** Marks under the hand: a click goes to the drawing that a mark points to. */
import ButtonBase from "@mui/material/ButtonBase";
import type { DisplayList } from "../api/client";
import { colours } from "../theme/theme";
import { toScreen, type Look } from "./geometry";

/** Radius of a mark's bubble; the same as the core has. Paper mm. */
const BUBBLE = 5;

interface Props {
  links: DisplayList["links"];
  look: Look;
  /** What a link's view is called, and where it stands; null for one that is not placed. */
  of: (view: string) => { name: string; sheet: string } | null;
  onGo: (view: string) => void;
}

export function MarkLinks({ links, look, of, onGo }: Props) {
  return links.map(({ view, at: [x = 0, y = 0] }, k) => {
    const target = of(view);
    const [left, top] = toScreen(look, x, y);
    const size = 2 * BUBBLE * look.scale;
    return (
      <ButtonBase
        key={k}
        aria-label={target ? `Mark: go to ${target.name} on ${target.sheet}` : "Mark of a view that is not placed yet"}
        title={target ? `${target.name}, on ${target.sheet}` : "Not placed on any sheet yet"}
        disabled={!target}
        onClick={() => onGo(view)}
        sx={{
          position: "absolute",
          left: left - size / 2,
          top: top - size / 2,
          width: size,
          height: size,
          borderRadius: "50%",
          zIndex: 3,
          pointerEvents: "auto",
          border: target ? undefined : `1.5px dashed ${colours.rust}`,
          "&:hover": { bgcolor: `${colours.rust}22` },
        }}
      />
    );
  });
}
