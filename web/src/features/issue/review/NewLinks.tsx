/** Links that were just made, to be copied: what is kept of them does not tell them again. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useState } from "react";
import { TitledDialog } from "../../../components/TitledDialog";
import { addressOf, type SecretLink } from "./reviewCommands";
import { t } from "../../../words/words";

export function NewLinks({ links, onClose }: { links: readonly SecretLink[]; onClose: () => void }) {
  const [copied, setCopied] = useState("");
  const copy = (link: SecretLink) =>
    void navigator.clipboard.writeText(addressOf(link.secret)).then(() => setCopied(link.id));
  return (
    <TitledDialog
      title={links.length === 1 ? t("The link") : t("The links")}
      text={
        <>
          {t(
            "Send each to whom it is for. It is shown this once; a lost one can be made anew, which " +
              "ends the old one.",
          )}
        </>
      }
      onClose={onClose}
      foot={
        <Button variant="contained" onClick={onClose}>
          {t("Done")}
        </Button>
      }
    >
      {links.map((link) => (
        <Box key={link.id} sx={{ display: "flex", alignItems: "center", gap: 1 }}>
          <Box sx={{ width: 130, fontSize: 13, fontWeight: 600 }}>{link.name || t("Whoever has it")}</Box>
          <OutlinedInput
            size="small"
            readOnly
            value={addressOf(link.secret)}
            onFocus={(event) => event.target.select()}
            inputProps={{ "aria-label": t("Link for {it}", { it: link.name || t("whoever has it") }) }}
            sx={{ flex: 1, fontSize: 12.5 }}
          />
          <Button variant="outlined" onClick={() => copy(link)} sx={{ width: 76 }}>
            {copied === link.id ? t("Copied") : t("Copy")}
          </Button>
        </Box>
      ))}
    </TitledDialog>
  );
}
