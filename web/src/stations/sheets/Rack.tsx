/** The rack: the cards of the saved views, pulled out over the register to be placed on the sheet. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useRef, type PointerEvent } from "react";
import type { View } from "../../api/client";
import { useDesk } from "../../board/desk";
import { StateMark } from "../../parts/StateMark";
import { colours } from "../../theme/theme";
import { REGISTER_WIDTH } from "./Register";
import { ViewThumbnail } from "../../parts/Thumbnail";

interface Props {
  views: View[];
  hasModel: boolean;
  /** Place a view: where the card was let go on the screen, or in the middle of the free space. */
  onPlace: (view: View, screen?: readonly [number, number]) => void;
}

export function Rack({ views, hasModel, onPlace }: Props) {
  const rack = useRef<HTMLDivElement>(null);
  useEffect(() => rack.current?.querySelector<HTMLElement>("[role=button]")?.focus(), []);

  function carry(event: PointerEvent, view: View) {
    if (event.button !== 0 || !view.linework) return;
    const target = event.currentTarget as HTMLElement;
    const { clientX, clientY } = event;
    let carried = false;
    const move = (e: globalThis.PointerEvent) => {
      if (!carried && Math.hypot(e.clientX - clientX, e.clientY - clientY) < 4) return;
      carried = true;
      useDesk.setState({ carried: { view, x: e.clientX, y: e.clientY } });
    };
    const letGo = () => {
      window.removeEventListener("pointermove", move);
      window.removeEventListener("pointerup", end);
      window.removeEventListener("keydown", escape, true);
      useDesk.setState({ carried: null });
    };
    const end = (e: globalThis.PointerEvent) => {
      letGo();
      if (carried) onPlace(view, [e.clientX, e.clientY]);
    };
    const escape = (e: KeyboardEvent) => {
      if (e.key !== "Escape") return;
      e.stopPropagation();
      letGo();
    };
    target.focus();
    event.preventDefault();
    window.addEventListener("pointermove", move);
    window.addEventListener("pointerup", end);
    window.addEventListener("keydown", escape, true);
  }

  return (
    <Box
      ref={rack}
      component="section"
      aria-label="Rack"
      sx={{
        position: "absolute",
        inset: "0 auto 0 0",
        width: REGISTER_WIDTH,
        zIndex: 5,
        display: "flex",
        flexDirection: "column",
        bgcolor: colours.sandPale,
        borderRight: `1px solid ${colours.sandShade}`,
        boxShadow: "6px 0 18px rgba(74, 60, 34, 0.2)",
      }}
    >
      <Box sx={{ px: 1.5, py: 1, display: "flex", alignItems: "center", justifyContent: "space-between" }}>
        <Box component="h2" sx={{ m: 0, fontSize: 13, fontWeight: 650 }}>
          Views
        </Box>
        <Button onClick={() => useDesk.setState({ rackOpen: false })} sx={{ minWidth: 0, px: 1 }}>
          Put back
        </Button>
      </Box>
      <Box sx={{ px: 1.5, pb: 1, fontSize: 12, color: "text.secondary" }}>
        {views.length
          ? "Drag a card onto the sheet, or press Enter on it."
          : hasModel
            ? "This project has no views."
            : "Bring a building file in at the Model station first; its plans and elevations then stand here."}
      </Box>
      <Box sx={{ flex: 1, overflowY: "auto", px: 1.5, pb: 1.5 }}>
        {views.map((view) => (
          <Box
            key={view.id}
            role="button"
            tabIndex={0}
            aria-label={`Place ${view.name}`}
            aria-disabled={!view.linework}
            onPointerDown={(event) => carry(event, view)}
            onKeyDown={(event) => {
              if (event.key === "Enter" && view.linework) onPlace(view);
            }}
            sx={{
              mb: 1,
              border: `1px solid ${colours.sandDeep}`,
              borderRadius: 1,
              bgcolor: colours.paper,
              overflow: "hidden",
              cursor: view.linework ? "grab" : "default",
              opacity: view.linework ? 1 : 0.7,
              touchAction: "none",
              userSelect: "none",
              "&:hover": { borderColor: colours.sandShade },
              "&:focus-visible": { outline: `2px solid ${colours.rust}`, outlineOffset: -2 },
            }}
          >
            <ViewThumbnail view={view} width={178} height={84} />
            <Box sx={{ px: 1, py: 0.5, borderTop: `1px solid ${colours.sand}`, bgcolor: colours.sandPale }}>
              <Box sx={{ fontSize: 12.5, fontWeight: 600 }}>{view.name}</Box>
              <Box sx={{ display: "flex", justifyContent: "space-between", gap: 1 }}>
                <StateMark state={view.state} />
                <Box sx={{ fontSize: 11.5, color: "text.secondary", textAlign: "right" }}>
                  {view.placed_on.length ? `on ${view.placed_on.join(", ")}` : "not placed"}
                </Box>
              </Box>
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
