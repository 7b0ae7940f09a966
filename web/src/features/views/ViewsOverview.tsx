/** The wall: every view as a card with its true picture, grouped by kind. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import OutlinedInput from "@mui/material/OutlinedInput";
import Tooltip from "@mui/material/Tooltip";
import { useState } from "react";
import { Link } from "react-router-dom";
import type { View, ViewSpec } from "../../api/client";
import { usePlacedOn } from "../../api/queries";
import { ChoiceField } from "../../components/ChoiceField";
import { StateMark } from "../../components/StateMark";
import { ViewThumbnail } from "../../components/Thumbnail";
import { colours } from "../../theme/theme";
import type { NewViewRequest } from "./DrawOn";
import type { ViewEdits } from "../../sync/views";
import { CORNER_CHOICES, GROUPS, summary } from "./kinds";
import { TogetherLedge } from "./TogetherLedge";

const SORTS = [
  ["set", "As in the set"],
  ["name", "By name"],
  ["state", "By state"],
] as const;
type Sort = (typeof SORTS)[number][0];
const URGENCY = ["out_of_date", "undrawn", "held", "up_to_date"];

interface Props {
  views: View[];
  hasModel: boolean;
  edits: ViewEdits;
  project: string;
  onOpen: (id: string) => void;
  onRequest: (request: NewViewRequest) => void;
  onDelete: (view: View) => void;
}

export function ViewsOverview({ views, hasModel, edits, project, onOpen, onRequest, onDelete }: Props) {
  const [sought, setSought] = useState("");
  const [sort, setSort] = useState<Sort>("set");
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const outOfDate = views.filter((v) => v.state === "out_of_date").length;

  const wanted = views.filter((v) =>
    `${v.name} ${summary(v.spec)}`.toLowerCase().includes(sought.trim().toLowerCase()),
  );
  const sorted = [...wanted].sort((a, b) => {
    if (sort === "name") return a.name.localeCompare(b.name, undefined, { numeric: true });
    if (sort === "state") return URGENCY.indexOf(a.state) - URGENCY.indexOf(b.state);
    return a.position - b.position;
  });
  const toggle = (ids: readonly string[], on: boolean) =>
    setChosen((old) => {
      const now = new Set(old);
      for (const id of ids)
        if (on) now.add(id);
        else now.delete(id);
      return now;
    });
  const placedOn = usePlacedOn(project);
  const some = views.filter((v) => chosen.has(v.id));

  return (
    <>
      <Box
        sx={{
          px: 3,
          py: 1.25,
          display: "flex",
          alignItems: "flex-end",
          gap: 1.25,
          bgcolor: colours.sandLight,
          borderBottom: `1px solid ${colours.sandDeep}`,
        }}
      >
        <Box component="h1" sx={{ m: 0, fontSize: 17, fontWeight: 650, mr: 1.5, lineHeight: "30px" }}>
          Views
        </Box>
        <OutlinedInput
          size="small"
          placeholder="Search"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
          inputProps={{ "aria-label": "Search views", type: "search" }}
          sx={{ width: 180 }}
        />
        <ChoiceField
          label="Order"
          width={128}
          value={sort}
          choices={SORTS}
          onChoose={(value) => setSort(value as Sort)}
        />
        <Box sx={{ flex: 1 }} />
        {outOfDate > 0 && (
          <Tooltip title="Draw every view that is out of date from the newest model version; held views stay">
            <Button variant="outlined" onClick={() => void edits.bringUpToDate()}>
              Update {outOfDate}
            </Button>
          </Tooltip>
        )}
        {hasModel && (
          <>
            <Tooltip title="Plans, roof plan, four elevations, four axonometrics; existing views stay">
              <Button variant="outlined" onClick={() => void edits.makeStandard()}>
                Make the standard views
              </Button>
            </Tooltip>
            <NewView
              edits={edits}
              hasPlan={views.some((v) => v.spec.kind === "plan" && v.linework)}
              onOpen={onOpen}
              onRequest={onRequest}
            />
          </>
        )}
      </Box>
      <Box sx={{ flex: 1, overflowY: "auto", px: 3, py: 2 }}>
        {!views.length && <Empty hasModel={hasModel} project={project} />}
        {views.length > 0 && !sorted.length && (
          <Box sx={{ color: "text.secondary" }}>No view is called or shows “{sought}”.</Box>
        )}
        {GROUPS.map(([name, kinds]) => {
          const group = sorted.filter((v) => kinds.includes(v.spec.kind));
          if (!group.length) return null;
          const every = group.every((v) => chosen.has(v.id));
          return (
            <Box key={name} component="section" aria-label={name} sx={{ mb: 2.5 }}>
              <Box sx={{ display: "flex", alignItems: "center", gap: 1, mb: 0.75 }}>
                <Box component="h2" sx={{ m: 0, fontSize: 13.5, fontWeight: 650 }}>
                  {name}
                </Box>
                <Box sx={{ fontSize: 12, color: "text.secondary" }}>{group.length}</Box>
                <Button
                  onClick={() =>
                    toggle(
                      group.map((v) => v.id),
                      !every,
                    )
                  }
                  sx={{ minHeight: 22, px: 0.75, fontSize: 12 }}
                >
                  {every ? "Select none" : "Select all"}
                </Button>
              </Box>
              <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, 196px)", gap: 1.5 }}>
                {group.map((view) => (
                  <Card
                    key={view.id}
                    view={view}
                    chosen={chosen.has(view.id)}
                    on={placedOn(view.id)}
                    onOpen={() => onOpen(view.id)}
                    onChoose={(on) => toggle([view.id], on)}
                    onDelete={() => onDelete(view)}
                  />
                ))}
              </Box>
            </Box>
          );
        })}
      </Box>
      {some.length > 0 && <TogetherLedge views={some} edits={edits} onDone={() => setChosen(new Set())} />}
    </>
  );
}

function Card(props: {
  view: View;
  chosen: boolean;
  on: readonly string[];
  onOpen: () => void;
  onChoose: (on: boolean) => void;
  onDelete: () => void;
}) {
  const { view, chosen, on } = props;
  return (
    <Box
      sx={{
        position: "relative",
        border: `1px solid ${chosen ? colours.rust : colours.sandDeep}`,
        boxShadow: chosen ? `0 0 0 1px ${colours.rust}` : "none",
        borderRadius: 1,
        bgcolor: colours.paper,
        overflow: "hidden",
        "&:hover": { borderColor: chosen ? colours.rust : colours.sandShade },
        "& .choose": { opacity: chosen ? 1 : 0 },
        "&:hover .choose, &:focus-within .choose": { opacity: 1 },
      }}
    >
      <Box
        role="button"
        tabIndex={0}
        aria-label={`Open ${view.name}`}
        onClick={props.onOpen}
        onKeyDown={(event) => {
          if (event.key === "Enter") props.onOpen();
          if (event.key === " ") props.onChoose(!chosen);
          if (event.key === "Delete") props.onDelete();
          if (event.key === " ") event.preventDefault();
        }}
        sx={{
          cursor: "pointer",
          "&:focus-visible": { outline: `2px solid ${colours.rust}`, outlineOffset: -2 },
        }}
      >
        <ViewThumbnail view={view} width={194} height={108} />
        <Box sx={{ px: 1, py: 0.6, borderTop: `1px solid ${colours.sand}`, bgcolor: colours.sandPale }}>
          <Box
            title={view.name}
            sx={{
              fontSize: 12.5,
              fontWeight: 600,
              overflow: "hidden",
              textOverflow: "ellipsis",
              whiteSpace: "nowrap",
            }}
          >
            {view.name}
          </Box>
          <Box
            sx={{
              fontSize: 11.5,
              color: "text.secondary",
              overflow: "hidden",
              textOverflow: "ellipsis",
              whiteSpace: "nowrap",
            }}
          >
            {summary(view.spec)}
          </Box>
          <Box sx={{ display: "flex", justifyContent: "space-between", gap: 1 }}>
            <StateMark state={view.state} />
            <Box
              sx={{
                fontSize: 11.5,
                color: "text.secondary",
                overflow: "hidden",
                textOverflow: "ellipsis",
                whiteSpace: "nowrap",
              }}
            >
              {on.length ? `on ${on.join(", ")}` : "not placed"}
            </Box>
          </Box>
        </Box>
      </Box>
      <Checkbox
        className="choose"
        size="small"
        checked={chosen}
        onChange={(_, on) => props.onChoose(on)}
        slotProps={{ input: { "aria-label": `Choose ${view.name}` } }}
        sx={{ position: "absolute", top: 2, left: 2, p: 0.25, bgcolor: "#ffffffc8", borderRadius: 0.5 }}
      />
    </Box>
  );
}

function NewView({
  edits,
  hasPlan,
  onOpen,
  onRequest,
}: {
  edits: ViewEdits;
  hasPlan: boolean;
  onOpen: (id: string) => void;
  onRequest: (w: NewViewRequest) => void;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const close = () => setAnchor(null);
  const make = async (corner: string) => {
    close();
    const made = await edits.make({ kind: "axonometric", corner: corner as ViewSpec["corner"] });
    if (made) onOpen(made);
  };
  const request = (wanted: NewViewRequest) => {
    close();
    onRequest(wanted);
  };
  return (
    <>
      <Button variant="contained" aria-haspopup="menu" onClick={(event) => setAnchor(event.currentTarget)}>
        New view
      </Button>
      <Menu
        anchorEl={anchor}
        open={Boolean(anchor)}
        onClose={close}
        transitionDuration={0}
        anchorOrigin={{ vertical: "bottom", horizontal: "right" }}
        transformOrigin={{ vertical: "top", horizontal: "right" }}
      >
        <MenuItem dense disabled={!hasPlan} onClick={() => request({ kind: "section" })}>
          Section, by drawing its line on a plan
        </MenuItem>
        <MenuItem dense disabled={!hasPlan} onClick={() => request({ kind: "elevation" })}>
          Elevation, by drawing along its face on a plan
        </MenuItem>
        <MenuItem dense disabled={!hasPlan} onClick={() => request({ kind: "perspective" })}>
          Perspective, by placing eye and target on a plan
        </MenuItem>
        <MenuItem dense disabled={!hasPlan} onClick={() => request({ kind: "detail" })}>
          Detail, by outlining a part of another view
        </MenuItem>
        {CORNER_CHOICES.map(([corner, name]) => (
          <MenuItem dense key={corner} onClick={() => void make(corner)}>
            Axonometric from the {name}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}

function Empty({ hasModel, project }: { hasModel: boolean; project: string }) {
  return (
    <Box sx={{ py: 10, textAlign: "center", color: "text.secondary" }}>
      {hasModel ? (
        "No views yet. Make the standard views, or a new one of your own."
      ) : (
        <>
          There is no building yet. <Link to={`/projects/${project}/model`}>Import a building file</Link>{" "}
          first.
        </>
      )}
    </Box>
  );
}
