/** Asks which elements of a drawing are to be tagged, and with what. */
import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, data, type TagSpec, type Viewport } from "../../../api/client";
import { useElementSources } from "../../../api/buildings";
import type { AnnotationEdits } from "./annotationCommands";
import { ForAllOf } from "./ForAllOf";
import { asSentence, classWords } from "../../../components/classWords";
import { TAG_WORDS } from "./pieceChoices";
import { ValueChoice } from "./ValueChoice";
import { t } from "../../../words/words";

const NOTHING: never[] = [];
/** What is tagged in most plans. */
const DEFAULT_CLASSES = ["IfcDoor", "IfcDoorStandardCase", "IfcWindow", "IfcWindowStandardCase"];

interface Props {
  project: string;
  viewport: Viewport;
  edits: AnnotationEdits;
  onClose: () => void;
}

export function TagAll({ project, viewport, edits, onClose }: Props) {
  const { data: sources = NOTHING } = useElementSources(project);
  const { data: classes } = useQuery({
    queryKey: ["classes", viewport.id, viewport.linework],
    queryFn: async () =>
      (await data(api.GET("/api/annotations/classes/", { params: { query: { viewport: viewport.id } } })))
        .names,
  });
  const [value, setValue] = useState("Material");
  if (!classes) return null;
  const parts = classes.map((name) => [name, asSentence(classWords(name))] as const);
  const usual = classes.filter((name) => DEFAULT_CLASSES.includes(name));
  return (
    <ForAllOf<string, TagSpec["shows"]>
      title={t("Tag elements")}
      text={t("Each beside its own, clear of each other. Done again, new ones are added and the rest stay.")}
      verb={t("Tag")}
      parts={parts}
      ticked={usual}
      how={{ label: t("Shows"), choices: TAG_WORDS, value: usual.length ? "number" : "value" }}
      more={(shows) =>
        shows === "value" && (
          <Box>
            <ValueChoice
              label={t("Value")}
              width="100%"
              value={value}
              sources={sources}
              onChoose={setValue}
            />
          </Box>
        )
      }
      onAnswer={(of, shows, home) => edits.tagAll(viewport, of, shows, value, home)}
      onClose={onClose}
    />
  );
}
