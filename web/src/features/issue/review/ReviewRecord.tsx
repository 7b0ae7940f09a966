/** A review: its links and how they were used, until when it is open, and its sheets. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, data, type Review } from "../../../api/client";
import { isActive } from "../../../api/jobs";
import { unbroken, useMoments } from "../../../components/moments";
import { useNow } from "../../../components/useNow";
import { PlotProgress } from "../../../components/PlotProgress";
import { notifyError } from "../../../stores/notices";
import { colours } from "../../../theme/theme";
import {
  addLink,
  deleteLink,
  endOf,
  extend,
  inDays,
  isOpen,
  renewLink,
  standing,
  withdraw,
} from "./reviewCommands";
import type { SecretLink } from "./reviewCommands";
import { t } from "../../../words/words";

const USES: Record<string, string> = {
  opened: t("opened it"),
  refused: t("gave a wrong word"),
  commented: "commented",
  answered: "answered",
  fetched: t("saved the PDF"),
};
/** As many of the latest uses are shown at once. */
const FEW = 12;

interface Props {
  review: Review;
  onLinks: (links: readonly SecretLink[]) => void;
}

export function ReviewRecord({ review, onLinks }: Props) {
  const { dayOf, momentOf } = useMoments();
  const now = useNow();
  const [name, setName] = useState("");
  const [until, setUntil] = useState(inDays(14));
  const { data: uses } = useQuery({
    queryKey: ["reviews", review.project, review.id, "uses"],
    queryFn: () => data(api.GET("/api/reviews/{id}/uses/", { params: { path: { id: review.id } } })),
  });
  const state = standing(review, now);
  const told = (made: Promise<SecretLink>) => void made.then((link) => onLinks([link]), notifyError);
  const nameOf = (link: string) => review.links.find((l) => l.id === link)?.name;
  return (
    <>
      <Box component="h2" sx={{ m: 0, fontSize: 15, fontWeight: 650 }}>
        {review.name}
      </Box>
      <Box sx={{ color: "text.secondary", fontSize: 12.5, mb: 1 }}>
        {t("{state}. Asked by {askedBy} on {asked}{until}{know}.", {
          state,
          askedBy: review.asked_by,
          asked: unbroken(dayOf(review.asked)),
          until: isOpen(review, now) && t(", open until {until}", { until: unbroken(dayOf(review.until)) }),
          know: review.has_word && t(", with a word to know"),
        })}
      </Box>
      {review.job && (isActive(review.job) || review.job.state === "failed") && (
        <PlotProgress job={review.job} problem="" cancelled={t("It was cancelled. Ask for it again.")} />
      )}
      {review.ready && (
        <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap", mb: 1 }}>
          <Button variant="outlined" href={`/api/reviews/${review.id}/pdf/`} download>
            {t("Save as PDF")}
          </Button>
          {isOpen(review, now) ? (
            <Button variant="outlined" onClick={() => void withdraw(review).catch(notifyError)}>
              {t("Withdraw")}
            </Button>
          ) : (
            <>
              <OutlinedInput
                type="date"
                size="small"
                value={until}
                onChange={(event) => setUntil(event.target.value)}
                inputProps={{ "aria-label": t("Open again until"), min: inDays(0, now) }}
                sx={{ width: 128 }}
              />
              <Button
                variant="outlined"
                disabled={!until}
                onClick={() => void extend(review, endOf(until)).catch(notifyError)}
              >
                {t("Open again")}
              </Button>
            </>
          )}
        </Box>
      )}
      <Heading>{t("Links")}</Heading>
      {review.links.map((link) => (
        <Box
          key={link.id}
          sx={{
            display: "flex",
            alignItems: "center",
            gap: 0.5,
            borderBottom: `1px solid ${colours.sandDeep}`,
            py: 0.5,
          }}
        >
          <Box sx={{ flex: 1, minWidth: 0 }}>
            <Box sx={{ fontWeight: 600 }}>{link.name || t("Whoever has it")}</Box>
            <Box sx={{ fontSize: 12, color: "text.secondary" }}>
              {link.opened
                ? t("Opened {which}", {
                    which: link.opened === 1 ? t("once") : t("{opened} times", { opened: link.opened }),
                  })
                : t("Not opened yet")}
              {link.last_used && t(", last used {lastUsed}", { lastUsed: momentOf(link.last_used) })}
            </Box>
          </Box>
          <Button
            aria-label={t("Make anew the link for {it}", { it: link.name || t("whoever has it") })}
            onClick={() => told(renewLink(review, link.id))}
            sx={{ minWidth: 0, px: 1 }}
          >
            {t("Make anew")}
          </Button>
          <Button
            aria-label={t("Delete the link for {it}", { it: link.name || t("whoever has it") })}
            onClick={() => void deleteLink(review, link.id).catch(notifyError)}
            sx={{ minWidth: 0, px: 1 }}
          >
            {t("Delete")}
          </Button>
        </Box>
      ))}
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          told(addLink(review, name.trim()));
          setName("");
        }}
        sx={{ display: "flex", gap: 0.5, my: 1 }}
      >
        <OutlinedInput
          size="small"
          placeholder={t("Another name")}
          value={name}
          onChange={(event) => setName(event.target.value)}
          inputProps={{ "aria-label": t("Name for another link"), maxLength: 80 }}
          sx={{ flex: 1 }}
        />
        <Button type="submit" variant="outlined" disabled={!name.trim()}>
          {t("Add a link")}
        </Button>
      </Box>
      <Heading>{t("Sheets")}</Heading>
      {review.sheets.map((sheet) => (
        <Box key={sheet.id} sx={{ py: 0.15 }}>
          <b>{sheet.number}</b> {sheet.title}
          {sheet.revision && `, ${sheet.revision}`}
        </Box>
      ))}
      {uses && uses.length > 0 && (
        <>
          <Heading>{t("Uses")}</Heading>
          {uses.slice(0, FEW).map((use, k) => (
            <Box key={k} sx={{ fontSize: 12.5 }}>
              {momentOf(use.at)} {use.name || nameOf(use.link) || t("Somebody")} {USES[use.kind]}
              <Box component="span" sx={{ color: "text.secondary" }}>
                {use.address && t(", from {address}", { address: use.address })}
              </Box>
            </Box>
          ))}
          {uses.length > FEW && (
            <Box sx={{ fontSize: 12, color: "text.secondary" }}>
              {t("and {few} before these", { few: uses.length - FEW })}
            </Box>
          )}
        </>
      )}
    </>
  );
}

function Heading({ children }: { children: string }) {
  return (
    <Box component="h3" sx={{ m: 0, mt: 1.5, mb: 0.5, fontSize: 13, fontWeight: 650 }}>
      {children}
    </Box>
  );
}
