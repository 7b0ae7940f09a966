/** What a tag shows of its element, and what a cloud marks. */
import Box from "@mui/material/Box";
import type { CloudSpec, TagSpec } from "../../../api/client";
import { useElementSources } from "../../../api/buildings";
import { ChoiceField } from "../../../components/ChoiceField";
import { FigureField } from "../../../components/FigureField";
import { Group, Rows } from "../../../components/Ledge";
import { ToggleButton } from "../../../components/ToggleButton";
import { TAG_WORDS } from "./pieceChoices";
import type { Of } from "./pieceProps";
import { ValueChoice } from "./ValueChoice";
import { t } from "../../../words/words";

const NOTHING: never[] = [];

export function TagFields({ piece, edits }: Of<TagSpec>) {
  const { spec } = piece;
  const { data: sources = NOTHING } = useElementSources(piece.project);
  const change = (to: Partial<TagSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <Group name={t("Tag")}>
      <Rows>
        <Box sx={{ display: "flex", gap: 0.75 }}>
          <ChoiceField
            label={t("Shows")}
            width={136}
            value={spec.shows}
            choices={TAG_WORDS}
            onChoose={(shows) => change({ shows: shows as TagSpec["shows"] }, t("what a tag shows"))}
          />
          {spec.shows === "value" && (
            <ValueChoice
              key={spec.source}
              label={t("Value")}
              value={spec.source}
              sources={sources}
              onChoose={(source) => source !== spec.source && change({ source }, t("what a tag shows"))}
            />
          )}
        </Box>
        <FigureField
          label={t("Typed over")}
          width={136}
          value={spec.override}
          placeholder={t("its own words")}
          onCommit={(override) => change({ override }, t("text of a tag"))}
        />
      </Rows>
    </Group>
  );
}

export function CloudFields({ piece, edits }: Of<CloudSpec>) {
  const { spec } = piece;
  const change = (to: Partial<CloudSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <Group name={t("Cloud")}>
      <FigureField
        label={t("Revision")}
        width={92}
        value={spec.revision}
        onCommit={(revision) => change({ revision }, t("revision of a cloud"))}
      />
      <ToggleButton
        on={spec.kept}
        name={t("Keep it")}
        tip={t("It stays when the sheet has its next revision")}
        onToggle={() => change({ kept: !spec.kept }, t("keep a cloud or not"))}
      />
    </Group>
  );
}
