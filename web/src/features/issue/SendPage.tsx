/** Issuing: which sheets, to whom, for what; made in the background, all of it or nothing. */
import Box from "@mui/material/Box";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router-dom";
import { useIssueOrder, useIssues, useRecipients } from "../../api/issues";
import { isActive } from "../../api/jobs";
import { useSheetLists } from "../../api/plots";
import { PlotProgress } from "../../components/PlotProgress";
import { notifyError } from "../../stores/notices";
import { colours } from "../../theme/theme";
import { ChosenSheets, type Choice } from "./ChosenSheets";
import { IssueLedge } from "./IssueLedge";
import { orderIssue, today } from "./issueCommands";
import { RaiseRevisions } from "./RaiseRevisions";
import { RecipientFields } from "./RecipientFields";
import { RecipientList } from "./RecipientList";
import { inSentence, t } from "../../words/words";

const NOTHING: never[] = [];

export function SendPage({ project, sheets, without, onChoose }: Choice) {
  const id = project.id;
  const { data: lists = NOTHING } = useSheetLists(id);
  const { data: recipients = NOTHING } = useRecipients(id);
  const { data: issues = NOTHING } = useIssues(id);
  const [leftOut, setLeftOut] = useState<ReadonlySet<string>>(new Set());
  const [shown, setShown] = useState<string | null>(null);
  const [about, setAbout] = useState({ name: "", purpose: "Comment", date: today(), reason: "" });
  const [ordered, setOrdered] = useState<string | null>(null);
  const [raising, setRaising] = useState(false);
  const client = useQueryClient();
  const { data: order } = useIssueOrder(ordered);
  const done = order?.job.state === "done";
  useEffect(() => {
    if (done) for (const key of ["issues", "checks"]) void client.invalidateQueries({ queryKey: [key, id] });
  }, [done, client, id]);

  const chosen = sheets.filter((s) => !without.has(s.id));
  const to = recipients.filter((r) => !leftOut.has(r.id));
  const current = recipients.find((r) => r.id === shown) ?? recipients[0];
  const name =
    about.name ||
    t("Issue {number}, for {purpose}", {
      number: (issues.at(-1)?.number ?? 0) + 1,
      purpose: inSentence(about.purpose),
    });
  const busy = order !== undefined && isActive(order.job);
  const make = () =>
    orderIssue({
      ...about,
      project: id,
      name,
      sheets: chosen.map((s) => s.id),
      recipients: to.map((r) => r.id),
    })
      .then((made) => setOrdered(made.id))
      .catch(notifyError);
  return (
    <>
      <Box sx={{ flex: 1, minHeight: 0, display: "flex" }}>
        <ChosenSheets
          name={t("Sheets to issue")}
          verb={t("Issue")}
          project={project}
          sheets={sheets}
          lists={lists}
          without={without}
          about={(sheet) => {
            const revision = sheet.revisions.at(-1)?.revision;
            const words = revision ? t("revision {revision}", { revision }) : t("no revision yet");
            return `${sheet.paper}, ${words}`;
          }}
          conflicts={NOTHING}
          onChoose={onChoose}
        />
        <Box
          sx={{
            flex: 1,
            minWidth: 0,
            display: "flex",
            flexDirection: "column",
            bgcolor: colours.sandPale,
            borderInline: `1px solid ${colours.sandDeep}`,
          }}
        >
          {order && (
            <Box sx={{ bgcolor: colours.sandLight, borderBottom: `1px solid ${colours.sandDeep}` }}>
              <PlotProgress
                job={order.job}
                problem=""
                cancelled={t("It was cancelled. Nothing was issued; it can be begun again.")}
              />
              {done && (
                <Box role="status" sx={{ px: 2, py: 1.25, fontSize: 13 }}>
                  <b>{order.name}</b> {t("was issued.")}{" "}
                  <Link to={`/projects/${id}/issue/register?issue=${order.issue}`}>
                    {t("Show it in the register")}
                  </Link>
                </Box>
              )}
            </Box>
          )}
          <RecipientList
            project={id}
            recipients={recipients}
            leftOut={leftOut}
            shown={current?.id ?? null}
            onLeaveOut={setLeftOut}
            onShow={setShown}
          />
        </Box>
        {current && <RecipientFields key={current.id} recipient={current} />}
      </Box>
      <IssueLedge
        project={id}
        about={{ ...about, name }}
        chosen={chosen}
        recipients={to.length}
        busy={busy}
        onChange={(change) => setAbout((now) => ({ ...now, ...change }))}
        onRaise={() => setRaising(true)}
        onIssue={() => void make()}
      />
      {raising && (
        <RaiseRevisions
          project={id}
          sheets={chosen}
          purpose={about.purpose}
          date={about.date}
          onClose={() => setRaising(false)}
        />
      )}
    </>
  );
}
