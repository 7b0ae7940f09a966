/** The colours that materials and layers have in pictures: the file's, or the project's own. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { ModelVersion, Register } from "../../api/client";
import { ColourField } from "../../components/ColourField";
import { TitledDialog } from "../../components/TitledDialog";
import { commit } from "../../sync/commands";
import { changing } from "../../sync/rows";
import { t } from "../../words/words";

type Colours = Record<string, string>;
const ABOUT =
  t("In all pictures of this project. As given: as the file has it, or as suits the material’s name. ") +
  t("The colour of a layer goes before those of its materials.");
const NOT_GIVEN = "#dbd9d4";

interface Props {
  register: Register;
  version: ModelVersion | undefined;
  onClose: () => void;
}

export function Palette({ register, version, onClose }: Props) {
  const [palette, setPalette] = useState(register.palette);
  const [layer_palette, setLayers] = useState(register.layer_palette);
  const given = version?.facts.colours ?? {};
  const layers = Object.keys(version?.facts.layers ?? {});
  const save = () => {
    const to = { palette, layer_palette };
    const before = { palette: register.palette, layer_palette: register.layer_palette };
    if (JSON.stringify(to) !== JSON.stringify(before))
      void commit(register.project, t("colours in pictures"), [changing("registers", register, to)]);
    onClose();
  };
  return (
    <TitledDialog
      title={t("Colours in pictures")}
      text={ABOUT}
      width="xs"
      onClose={onClose}
      onSubmit={save}
      foot={
        <>
          <Button onClick={onClose}>{t("Cancel")}</Button>
          <Button type="submit" variant="contained">
            {t("Save")}
          </Button>
        </>
      }
    >
      {Object.keys(given).length === 0 && (
        <Box sx={{ fontSize: 13, color: "text.secondary" }}>
          {t(
            "This version of the building was read before colours were. Import it again to see its " +
              "materials.",
          )}
        </Box>
      )}
      <Box sx={{ maxHeight: "50vh", overflowY: "auto" }}>
        <Rows
          title={t("Materials")}
          names={Object.keys(given)}
          given={given}
          own={palette}
          onChange={setPalette}
        />
        <Rows title={t("Layers")} names={layers} given={{}} own={layer_palette} onChange={setLayers} />
      </Box>
    </TitledDialog>
  );
}

function Rows({
  title,
  names,
  given,
  own,
  onChange,
}: {
  title: string;
  names: readonly string[];
  given: Colours;
  own: Colours;
  onChange: (own: Colours) => void;
}) {
  const all = [...new Set([...names, ...Object.keys(own)])].sort((a, b) => a.localeCompare(b));
  if (!all.length) return null;
  return (
    <Box role="group" aria-label={title} sx={{ mb: 1.5 }}>
      <Box sx={{ fontSize: 12.5, fontWeight: 650, mb: 0.5 }}>{title}</Box>
      {all.map((name) => {
        const { [name]: changed, ...others } = own;
        return (
          <Box key={name} sx={{ display: "flex", alignItems: "center", gap: 1, minHeight: 32, fontSize: 13 }}>
            <ColourField
              label={t("Colour of {name}", { name })}
              value={changed ?? given[name] ?? NOT_GIVEN}
              onChange={(colour) => onChange({ ...own, [name]: colour })}
            />
            <Box sx={{ flex: 1, color: changed || given[name] ? "text.primary" : "text.secondary" }}>
              {name}
            </Box>
            {changed !== undefined && (
              <Button sx={{ minHeight: 26, px: 1 }} onClick={() => onChange(others)}>
                {t("As given")}
              </Button>
            )}
          </Box>
        );
      })}
    </Box>
  );
}
