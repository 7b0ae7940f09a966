/** The guide, beside which nothing has to be opened: its chapters, what is looked for, and what it says. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useState } from "react";
import Markdown from "react-markdown";
import german from "../../../../docs/guide.de.md?raw";
import english from "../../../../docs/guide.md?raw";
import { TitledDialog } from "../../components/TitledDialog";
import { colours } from "../../theme/theme";
import { foundIn, sectionsOf, type Section } from "./sections";
import { spoken, t, type Language } from "../../words/words";

const GUIDES: Record<Language, string> = { en: english, de: german };
const SECTIONS = sectionsOf(GUIDES[spoken()]);

export function Guide({ onClose }: { onClose: () => void }) {
  const [typed, setTyped] = useState("");
  const [chosen, setChosen] = useState<Section | null>(null);
  const found = foundIn(SECTIONS, typed);
  const shown = chosen && found.includes(chosen) ? chosen : found[0];
  return (
    <TitledDialog
      title={t("Guide")}
      width="md"
      onClose={onClose}
      foot={
        <Button variant="contained" onClick={onClose}>
          {t("Close")}
        </Button>
      }
    >
      <Box sx={{ display: "flex", gap: 2.5, height: "min(520px, 62vh)" }}>
        <Box sx={{ width: 236, flexShrink: 0, display: "flex", flexDirection: "column", minHeight: 0 }}>
          <OutlinedInput
            size="small"
            autoFocus
            placeholder={t("Search the guide")}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            inputProps={{ "aria-label": t("Search the guide"), type: "search" }}
            sx={{ mb: 1 }}
          />
          <Box component="nav" aria-label={t("Sections")} sx={{ overflowY: "auto", flex: 1 }}>
            {found.map((section, k) => (
              <Box key={`${section.chapter} ${section.title}`}>
                {!typed.trim() && isFirstOf(section, found[k - 1]) && (
                  <Box
                    sx={{ fontSize: 12, fontWeight: 650, mt: k ? 1 : 0, px: 0.75, color: "text.secondary" }}
                  >
                    {section.chapter}
                  </Box>
                )}
                <ButtonBase
                  onClick={() => setChosen(section)}
                  aria-current={section === shown ? "true" : undefined}
                  sx={{
                    display: "block",
                    width: "100%",
                    textAlign: "left",
                    px: 0.75,
                    py: 0.4,
                    fontSize: 13,
                    borderRadius: 1,
                    bgcolor: section === shown ? colours.sand : "transparent",
                    "&:hover": { bgcolor: section === shown ? colours.sand : colours.sandLight },
                  }}
                >
                  {section.title}
                </ButtonBase>
              </Box>
            ))}
            {!found.length && (
              <Box sx={{ fontSize: 12.5, color: "text.secondary", px: 0.75 }}>
                {t("The guide has none of this.")}
              </Box>
            )}
          </Box>
        </Box>
        <Box
          component="article"
          tabIndex={0}
          aria-label={shown?.title ?? t("Guide")}
          sx={{ flex: 1, minWidth: 0, overflowY: "auto", pr: 1, ...TEXT }}
        >
          {shown && (
            <>
              <Box component="h3" sx={{ m: 0, mb: 1, fontSize: 16, fontWeight: 650 }}>
                {shown.title}
              </Box>
              <Markdown>{shown.text}</Markdown>
            </>
          )}
        </Box>
      </Box>
    </TitledDialog>
  );
}

/** Whether a chapter begins with a section of another name. */
const isFirstOf = (section: Section, before: Section | undefined) =>
  section.chapter !== before?.chapter && section.title !== section.chapter;

const TEXT = {
  fontSize: 14,
  lineHeight: 1.55,
  "& p": { m: 0, mb: 1.25, maxWidth: 560 },
  "& ol, & ul": { m: 0, mb: 1.25, pl: 2.5, maxWidth: 540 },
  "& li": { mb: 0.5 },
  "& code": { fontSize: 12.5, bgcolor: colours.sandLight, px: 0.5 },
} as const;
