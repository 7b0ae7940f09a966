/** The wall: every view as a card with its true picture, grouped by kind. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import Tooltip from "@mui/material/Tooltip";
import { useState } from "react";
import { Link } from "react-router-dom";
import type { ModelVersion, View } from "../../api/client";
import { usePlacedOn } from "../../api/sheets";
import { ChoiceField } from "../../components/ChoiceField";
import { useLengths } from "../../components/lengths";
import { useContextMenu } from "../../components/useContextMenu";
import { colours } from "../../theme/theme";
import type { NewViewRequest } from "./DrawOn";
import type { ViewEdits } from "../../sync/views";
import { GROUPS, summary } from "./kinds";
import { NewView } from "./NewView";
import { ReceiveDrawing } from "./ReceiveDrawing";
import { specOf } from "./received";
import { TogetherLedge } from "./TogetherLedge";
import { ViewCard } from "./ViewCard";
import { t } from "../../words/words";

const SORTS = [
  ["set", t("As in the set")],
  ["name", t("By name")],
  ["state", t("By state")],
] as const;
type Sort = (typeof SORTS)[number][0];
const URGENCY = ["out_of_date", "undrawn", "held", "up_to_date"];

interface Props {
  views: View[];
  /** The newest of the building; none before there is one. */
  version: ModelVersion | undefined;
  edits: ViewEdits;
  project: string;
  onOpen: (id: string) => void;
  onRequest: (request: NewViewRequest) => void;
  onDelete: (view: View) => void;
}

export function ViewsOverview({ views, version, edits, project, onOpen, onRequest, onDelete }: Props) {
  const lengths = useLengths();
  const [sought, setSought] = useState("");
  const [sort, setSort] = useState<Sort>("set");
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const outOfDate = views.filter((v) => v.state === "out_of_date").length;

  const wanted = views.filter((v) =>
    `${v.name} ${summary(v.spec, lengths)}`.toLowerCase().includes(sought.trim().toLowerCase()),
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
  const { menu, open: openMenu } = useContextMenu();

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
        <Box component="h2" sx={{ m: 0, fontSize: 17, fontWeight: 650, mr: 1.5, lineHeight: "30px" }}>
          {t("Views")}
        </Box>
        <OutlinedInput
          size="small"
          placeholder={t("Search")}
          value={sought}
          onChange={(event) => setSought(event.target.value)}
          inputProps={{ "aria-label": t("Search views"), type: "search" }}
          sx={{ width: 180 }}
        />
        <ChoiceField
          label={t("Order")}
          width={128}
          value={sort}
          choices={SORTS}
          onChoose={(value) => setSort(value as Sort)}
        />
        <Box sx={{ flex: 1 }} />
        {outOfDate > 0 && (
          <Tooltip
            title={t("Draw every view that is out of date from the newest model version; held views stay")}
          >
            <Button variant="outlined" onClick={() => void edits.bringUpToDate()}>
              {t("Update {outOfDate}", { outOfDate })}
            </Button>
          </Tooltip>
        )}
        <ReceiveDrawing
          project={project}
          name={t("Drawing from others…")}
          tip={t("A surveyor’s or an engineer’s DXF, SVG or PDF page becomes a view of its own")}
          onReady={(file) =>
            void edits
              .make(specOf(file), file.name.replace(/\.\w+$/, ""))
              .then((made) => made && onOpen(made))
          }
        />
        {version && (
          <>
            <Tooltip title={t("Plans, roof plan, four elevations, four axonometrics; existing views stay")}>
              <Button variant="outlined" onClick={() => void edits.makeStandard()}>
                {t("Make the standard views")}
              </Button>
            </Tooltip>
            <NewView
              edits={edits}
              hasPlan={views.some((v) => v.spec.kind === "plan" && v.linework)}
              storeys={(version.facts.storeys ?? []).map((s) => s.name)}
              onOpen={onOpen}
              onRequest={onRequest}
            />
          </>
        )}
      </Box>
      <Box sx={{ flex: 1, overflowY: "auto", px: 3, py: 2 }}>
        {!views.length && <Empty hasModel={version !== undefined} project={project} />}
        {views.length > 0 && !sorted.length && (
          <Box sx={{ color: "text.secondary" }}>
            {t("No view is called or shows “{sought}”.", { sought })}
          </Box>
        )}
        {GROUPS.map(([name, kinds]) => {
          const group = sorted.filter((v) => kinds.includes(v.spec.kind));
          if (!group.length) return null;
          const every = group.every((v) => chosen.has(v.id));
          return (
            <Box key={name} component="section" aria-label={name} sx={{ mb: 2.5 }}>
              <Box sx={{ display: "flex", alignItems: "center", gap: 1, mb: 0.75 }}>
                <Box component="h3" sx={{ m: 0, fontSize: 13.5, fontWeight: 650 }}>
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
                  {every ? t("Select none") : t("Select all")}
                </Button>
              </Box>
              <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, 196px)", gap: 1.5 }}>
                {group.map((view) => (
                  <ViewCard
                    key={view.id}
                    view={view}
                    chosen={chosen.has(view.id)}
                    on={placedOn(view.id)}
                    onOpen={() => onOpen(view.id)}
                    onChoose={(on) => toggle([view.id], on)}
                    onDelete={() => onDelete(view)}
                    onMenu={(event) =>
                      openMenu(event, [
                        [
                          [t("Open"), () => onOpen(view.id), "Enter"],
                          chosen.has(view.id)
                            ? [t("Take out of the selection"), () => toggle([view.id], false), "Space"]
                            : [t("Select"), () => toggle([view.id], true), "Space"],
                        ],
                        [[t("Delete…"), () => onDelete(view), "Delete"]],
                      ])
                    }
                  />
                ))}
              </Box>
            </Box>
          );
        })}
      </Box>
      {menu}
      {some.length > 0 && (
        <TogetherLedge views={some} version={version} edits={edits} onDone={() => setChosen(new Set())} />
      )}
    </>
  );
}

function Empty({ hasModel, project }: { hasModel: boolean; project: string }) {
  return (
    <Box sx={{ py: 10, textAlign: "center", color: "text.secondary" }}>
      {hasModel ? (
        t("No views yet. Make the standard views, or a new one of your own.")
      ) : (
        <>
          {t("There is no building yet.")}{" "}
          <Link to={`/projects/${project}/model`}>{t("Import a building file")}</Link> {t("first.")}
        </>
      )}
    </Box>
  );
}
