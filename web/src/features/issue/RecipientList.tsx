/** Whom sheets are sent to: ticked, and one of them shown beside. */
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Checkbox from "@mui/material/Checkbox";
import type { Recipient } from "../../api/client";
import { LineForm } from "../../components/LineForm";
import { colours } from "../../theme/theme";
import { addRecipient } from "./issueCommands";
import { DELIVERIES, FORMS } from "./recipientChoices";
import { inSentence, t } from "../../words/words";

interface Props {
  project: string;
  recipients: readonly Recipient[];
  leftOut: ReadonlySet<string>;
  shown: string | null;
  onLeaveOut: (ids: ReadonlySet<string>) => void;
  onShow: (id: string) => void;
}

export function RecipientList({ project, recipients, leftOut, shown, onLeaveOut, onShow }: Props) {
  const tick = (id: string, on: boolean) => {
    const next = new Set(leftOut);
    if (on) next.delete(id);
    else next.add(id);
    onLeaveOut(next);
  };
  return (
    <Box sx={{ flex: 1, overflowY: "auto", px: 2, py: 1.5 }}>
      <Box component="h2" sx={{ m: 0, mb: 1, fontSize: 14, fontWeight: 650 }}>
        {t("Recipients")}
      </Box>
      {!recipients.length && (
        <Box sx={{ fontSize: 13, color: "text.secondary", mb: 1.25, maxWidth: 460, lineHeight: 1.45 }}>
          {t(
            "Nobody is sent these sheets yet. Add those who are: each with the formats, papers and " +
              "layers that they need. They stay for the next issue.",
          )}
        </Box>
      )}
      <Box component="ul" aria-label={t("Recipients")} sx={{ m: 0, p: 0, listStyle: "none", maxWidth: 620 }}>
        {recipients.map((recipient) => {
          const { spec } = recipient;
          const on = !leftOut.has(recipient.id);
          const current = recipient.id === shown;
          return (
            <Box
              component="li"
              key={recipient.id}
              sx={{
                display: "flex",
                alignItems: "flex-start",
                gap: 0.5,
                mb: 0.75,
                bgcolor: colours.paper,
                border: `1px solid ${current ? colours.rust : colours.sandDeep}`,
                borderRadius: 1,
              }}
            >
              <Checkbox
                size="small"
                sx={{ mt: 0.5, ml: 0.5 }}
                checked={on}
                slotProps={{ input: { "aria-label": t("Send to {name}", { name: spec.name }) } }}
                onChange={(_, next) => tick(recipient.id, next)}
              />
              <ButtonBase
                aria-current={current ? "true" : undefined}
                onClick={() => onShow(recipient.id)}
                sx={{
                  flex: 1,
                  display: "block",
                  textAlign: "left",
                  py: 0.9,
                  pr: 1.25,
                  opacity: on ? 1 : 0.6,
                }}
              >
                <Box sx={{ fontSize: 13.5 }}>
                  <b>{spec.name}</b>
                  {spec.organisation && `, ${spec.organisation}`}
                </Box>
                <Box sx={{ fontSize: 12, color: "text.secondary", lineHeight: 1.4 }}>{saidOf(recipient)}</Box>
              </ButtonBase>
            </Box>
          );
        })}
      </Box>
      <Box sx={{ mt: 1 }}>
        <LineForm
          label={t("Name of a recipient")}
          placeholder={t("Name of a recipient")}
          maxLength={120}
          width={240}
          button={t("Add recipient")}
          onDone={(name) => onShow(addRecipient(project, name))}
        />
      </Box>
    </Box>
  );
}

/** What somebody is sent and how, in a line. */
function saidOf({ spec }: Recipient): string {
  const forms = FORMS.filter(([key]) => spec.forms.includes(key)).map(([, name]) => name);
  const how = DELIVERIES.find(([key]) => key === spec.delivery)?.[1] ?? "";
  const parts = [
    forms.join(", ") || t("no format yet"),
    spec.onto ? t("reduced to {onto}", { onto: spec.onto }) : t("full size"),
    spec.annotation ? "" : t("without annotation"),
    spec.fills ? "" : t("without fills"),
    spec.layers_off.length ? t("{count} layers off", { count: spec.layers_off.length }) : "",
    inSentence(how),
  ];
  return parts.filter(Boolean).join(" · ");
}
