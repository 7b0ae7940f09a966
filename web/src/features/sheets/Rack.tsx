/** The rack: the cards of the saved views, pulled out over the register to be placed on the sheet. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useRef, useState, type PointerEvent } from "react";
import type { View } from "../../api/client";
import { drag } from "../../canvas/drag";
import { usePlacedOn } from "../../api/sheets";
import { LIST } from "../../components/stationLayout";
import { StateMark } from "../../components/StateMark";
import { colours } from "../../theme/theme";
import { ViewThumbnail } from "../../components/Thumbnail";
import { Unseen } from "../../components/Unseen";
import type { Projection } from "./viewportCommands";
import { REGISTER_WIDTH } from "./Register";
import { useBoard } from "../../stores/board";
import { useGesture } from "../../stores/gesture";
import { t } from "../../words/words";

interface Props {
  project: string;
  views: View[];
  hasModel: boolean;
  /** Place views: where the card was let go on the screen, or in the empty spaces of the sheet. */
  onPlace: (views: View[], screen?: readonly [number, number]) => void;
  /** Lay views out as a projected set. */
  onArrange: (views: View[], projection: Projection) => void;
}

export function Rack({ project, views, hasModel, onPlace, onArrange }: Props) {
  const placedOn = usePlacedOn(project);
  const [chosen, setChosen] = useState<readonly string[]>([]);
  // In the order in which they were chosen: the first upright one is the front of a set.
  const picked = chosen.flatMap((id) => views.find((v) => v.id === id) ?? []);
  const toggle = (id: string) =>
    setChosen((old) => (old.includes(id) ? old.filter((other) => other !== id) : [...old, id]));

  const rack = useRef<HTMLDivElement>(null);
  useEffect(() => rack.current?.querySelector<HTMLElement>("[role=button]")?.focus(), []);

  function carry(event: PointerEvent, view: View) {
    if (event.button !== 0 || !view.linework) return;
    (event.currentTarget as HTMLElement).focus();
    event.preventDefault();
    drag(event, {
      move: (_dx, _dy, { clientX, clientY }) =>
        useGesture.setState({ cards: { views: [view], x: clientX, y: clientY } }),
      end: (dragged, { clientX, clientY }) => {
        if (dragged) onPlace([view], [clientX, clientY]);
        else toggle(view.id);
      },
      onEnd: () => useGesture.setState({ cards: null }),
    });
  }

  return (
    <Box
      ref={rack}
      component="section"
      aria-label={t("Rack")}
      sx={{
        ...LIST,
        position: "absolute",
        inset: "0 auto 0 0",
        width: REGISTER_WIDTH,
        zIndex: 5,
        bgcolor: colours.sandPale,
        borderRight: `1px solid ${colours.sandShade}`,
        boxShadow: "6px 0 18px rgba(74, 60, 34, 0.2)",
      }}
    >
      <Box sx={{ px: 1.5, py: 1, display: "flex", alignItems: "center", justifyContent: "space-between" }}>
        <Box component="h2" sx={{ m: 0, fontSize: 13, fontWeight: 650 }}>
          {t("Views")}
        </Box>
        <Button onClick={() => useBoard.setState({ rackOpen: false })} sx={{ minWidth: 0, px: 1 }}>
          {t("Close")}
        </Button>
      </Box>
      <Box sx={{ px: 1.5, pb: 1, fontSize: 12, color: "text.secondary" }}>
        {views.length
          ? t("Drag a card onto the sheet, or press Enter on it. Click cards to choose several.")
          : hasModel
            ? t("This project has no views.")
            : t("Import a building file at the Model station first; its views are then listed here.")}
      </Box>
      <Box sx={{ flex: 1, overflowY: "auto", px: 1.5, pb: 1.5 }}>
        {views.map((view) => (
          <Box
            key={view.id}
            role="button"
            tabIndex={0}
            aria-disabled={!view.linework}
            aria-pressed={chosen.includes(view.id)}
            onPointerDown={(event) => carry(event, view)}
            onKeyDown={(event) => {
              if (!view.linework) return;
              if (event.key === "Enter") onPlace(picked.length ? picked : [view]);
              if (event.key === " ") {
                event.preventDefault();
                toggle(view.id);
              }
            }}
            sx={{
              mb: 1,
              border: `1px solid ${chosen.includes(view.id) ? colours.rust : colours.sandDeep}`,
              boxShadow: chosen.includes(view.id) ? `0 0 0 1px ${colours.rust}` : "none",
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
              <Box sx={{ fontSize: 12.5, fontWeight: 600 }}>
                <Unseen>{`${t("Place")} `}</Unseen>
                {view.name}{" "}
              </Box>
              <Box sx={{ display: "flex", justifyContent: "space-between", gap: 1 }}>
                <StateMark state={view.state} />
                <Box sx={{ fontSize: 11.5, color: "text.secondary", textAlign: "right" }}>
                  {placedOn(view.id).length
                    ? t("on {id}", { id: placedOn(view.id).join(", ") })
                    : t("not placed")}
                </Box>
              </Box>
            </Box>
          </Box>
        ))}
      </Box>
      {picked.length > 0 && (
        <Box
          role="group"
          aria-label={t("Chosen views")}
          sx={{ p: 1, borderTop: `1px solid ${colours.sandDeep}`, bgcolor: colours.sandLight }}
        >
          <Box sx={{ display: "flex", gap: 0.75, mb: 0.75 }}>
            <Button variant="contained" onClick={() => onPlace(picked)} sx={{ flex: 1, minWidth: 0 }}>
              {t("Place {count}", { count: picked.length })}
            </Button>
            <Button variant="outlined" onClick={() => setChosen([])} sx={{ minWidth: 0 }}>
              {t("None")}
            </Button>
          </Box>
          <Box sx={{ fontSize: 11.5, color: "text.secondary", mb: 0.25 }}>{t("Lay out as one set, by")}</Box>
          <Box sx={{ display: "flex", gap: 0.75 }}>
            <Button
              variant="outlined"
              onClick={() => onArrange(picked, "third-angle")}
              sx={{ flex: 1, minWidth: 0, px: 0.5 }}
              title={t("ISO 5456: seen from above stands above, from the right on the right")}
            >
              {t("Third angle")}
            </Button>
            <Button
              variant="outlined"
              onClick={() => onArrange(picked, "first-angle")}
              sx={{ flex: 1, minWidth: 0, px: 0.5 }}
              title={t("ISO 5456: seen from above stands below, from the right on the left")}
            >
              {t("First angle")}
            </Button>
          </Box>
        </Box>
      )}
    </Box>
  );
}
