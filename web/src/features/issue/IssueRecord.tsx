/** The record of an issue: to whom it went and how, its files with their checksums, and its sheets. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router-dom";
import { useMoments } from "../../components/moments";
import { api, data, type Issue, type IssuedRecipient } from "../../api/client";
import { useRemake } from "../../api/issues";
import { isActive } from "../../api/jobs";
import { notify, notifyError } from "../../stores/notices";
import { colours } from "../../theme/theme";
import { inSentence, t } from "../../words/words";

interface Props {
  project: string;
  issue: Issue;
}

export function IssueRecord({ project, issue }: Props) {
  const { dayOf } = useMoments();
  return (
    <Box
      component="aside"
      aria-label={t("Issue {name}", { name: issue.name })}
      sx={{
        width: 386,
        flexShrink: 0,
        overflowY: "auto",
        p: 1.75,
        bgcolor: "background.default",
        borderLeft: `1px solid ${colours.sandDeep}`,
        fontSize: 13,
        lineHeight: 1.45,
      }}
    >
      <Box component="h2" sx={{ m: 0, fontSize: 15, fontWeight: 650 }}>
        {issue.name}
      </Box>
      <Box sx={{ color: "text.secondary", fontSize: 12.5, mb: 1 }}>
        {t(
          "Issued for {purpose} on {date} by {known}, from version {modelNumber} of the model. Kept " +
            "as it was; it cannot be changed.",
          {
            purpose: inSentence(issue.purpose),
            date: dayOf(issue.date),
            known: issue.issued_by || t("nobody known"),
            modelNumber: issue.model_number || "–",
          },
        )}
      </Box>
      {issue.findings.length > 0 && (
        <Box sx={{ mb: 1, p: 1, bgcolor: colours.rustPale, borderRadius: 1, fontSize: 12.5 }}>
          {t("Issued with {which}: {reason}", {
            which:
              issue.findings.length === 1
                ? t("1 known error")
                : t("{findings} known errors", { findings: issue.findings.length }),
            reason: issue.reason,
          })}
        </Box>
      )}
      {issue.recipients.map((recipient) => (
        <OneRecipient key={recipient.id} project={project} recipient={recipient} />
      ))}
      <Box component="h3" sx={{ m: 0, mt: 1.5, mb: 0.5, fontSize: 13, fontWeight: 650 }}>
        {t("Sheets")}
      </Box>
      {issue.sheets.map((sheet) => (
        <Box key={sheet.id} sx={{ display: "flex", gap: 0.75, alignItems: "baseline", py: 0.15 }}>
          <b>{sheet.number}</b>
          <Box sx={{ flex: 1, minWidth: 0 }}>
            {sheet.title}
            {sheet.revision && `, ${sheet.revision}`}
          </Box>
          {sheet.sheet && (
            <Link
              to={`/projects/${project}/issue/compare?old=${sheet.id}&new=${sheet.sheet}`}
              aria-label={t("Compare {number} with now", { number: sheet.number })}
              style={{ color: colours.rust, whiteSpace: "nowrap" }}
            >
              {t("Compare with now")}
            </Link>
          )}
        </Box>
      ))}
    </Box>
  );
}

function OneRecipient({ project, recipient }: { project: string; recipient: IssuedRecipient }) {
  const { dayOf } = useMoments();
  const client = useQueryClient();
  const [made, setMade] = useState<string | null>(null);
  const { data: remake } = useRemake(made);
  const { spec, sent } = recipient;
  const path = { params: { path: { id: recipient.id } } };
  const own = `/api/issued-recipients/${recipient.id}`;
  const act = (call: () => Promise<unknown>) =>
    call()
      .then(() => client.invalidateQueries({ queryKey: ["issues", project] }))
      .catch(notifyError);
  const link =
    sent?.state === "sent" && spec.delivery === "link" ? `${location.origin}/delivered/${sent.place}/` : "";
  return (
    <Box
      component="section"
      aria-label={spec.name}
      sx={{
        mb: 1,
        p: 1.25,
        bgcolor: colours.sandPale,
        border: `1px solid ${colours.sandDeep}`,
        borderRadius: 1,
      }}
    >
      <Box>
        <b>{spec.name}</b>
        {spec.organisation && `, ${spec.organisation}`}
      </Box>
      <Box sx={{ fontSize: 12.5, color: sent?.state === "failed" ? colours.rust : "text.secondary" }}>
        {arrived(recipient, dayOf)}
      </Box>
      {recipient.files.map((file) => (
        <Box key={file.id} sx={{ mt: 0.5, minWidth: 0 }}>
          <a href={`/api/issued-files/${file.id}/file/`} download style={{ color: colours.rust }}>
            {file.name}
          </a>
          <Box
            title={`SHA-256 ${file.checksum}`}
            sx={{ fontSize: 11.5, color: "text.secondary", fontVariantNumeric: "tabular-nums" }}
          >
            {t("{size}, SHA-256 {checksum}…", {
              size: sizeOf(file.size),
              checksum: file.checksum.slice(0, 12),
            })}
          </Box>
        </Box>
      ))}
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.5, mt: 1 }}>
        <Button variant="outlined" component="a" href={`${own}/transmittal/`} download>
          {t("Transmittal")}
        </Button>
        <Button variant="outlined" component="a" href={`${own}/archive/`} download>
          {t("All in a ZIP")}
        </Button>
        {link && (
          <>
            <Button
              variant="outlined"
              onClick={() =>
                void navigator.clipboard
                  .writeText(link)
                  .then(() => notify(t("The link was copied")), notifyError)
              }
            >
              {t("Copy link")}
            </Button>
            <Button
              variant="outlined"
              onClick={() => void act(() => api.POST("/api/issued-recipients/{id}/withdraw/", path))}
            >
              {t("Withdraw link")}
            </Button>
          </>
        )}
        {(sent?.state !== "sent" || spec.delivery === "mail") && (
          <Button
            variant="outlined"
            onClick={() => void act(() => api.POST("/api/issued-recipients/{id}/send/", path))}
          >
            {t("Send again")}
          </Button>
        )}
        <Button
          variant="outlined"
          disabled={remake !== undefined && isActive(remake.job)}
          onClick={() =>
            void data(api.POST("/api/issued-recipients/{id}/remake/", path)).then(
              (r) => setMade(r.id),
              notifyError,
            )
          }
        >
          {t("Make again")}
        </Button>
      </Box>
      {remake && (
        <Box role="status" sx={{ mt: 0.75, fontSize: 12.5, fontWeight: 600 }}>
          {isActive(remake.job)
            ? t("Being made again from the record…")
            : remake.same
              ? t("Made again: the same to the byte.")
              : remake.job.message || t("Made again: not the same. Another version of Dunefold wrote it.")}
        </Box>
      )}
    </Box>
  );
}

/** How it reached its recipient, in a sentence. */
function arrived({ spec, sent }: IssuedRecipient, dayOf: (at: string) => string): string {
  if (!sent || sent.state === "waiting") return t("Not sent yet.");
  if (sent.state === "failed") return t("It did not arrive: {message}", { message: sent.message });
  if (sent.state === "withdrawn") return t("The link was withdrawn.");
  const day = dayOf(sent.at);
  if (spec.delivery === "mail") return t("Mailed to {address} on {day}.", { address: spec.address, day });
  if (spec.delivery === "folder") return t("Put into the folder {place}.", { place: sent.place });
  const often = sent.fetched === 1 ? t("once") : t("{fetched} times", { fetched: sent.fetched });
  const fetched = sent.fetched ? often : t("by nobody yet");
  return t("Behind a link until {day}; fetched {fetched}.", { day: dayOf(sent.until ?? ""), fetched });
}

const sizeOf = (bytes: number) =>
  bytes < 1024 ** 2
    ? t("{bytes} KB", { bytes: Math.max(1, Math.round(bytes / 1024)) })
    : t("{bytes} MB", { bytes: (bytes / 1024 ** 2).toFixed(1) });
