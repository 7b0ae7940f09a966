/** What the fields of a piece are given, whatever its kind. */
import type { Annotation, AnnotationSpec } from "../../../api/client";
import { useAnnotationStyles } from "../../../api/annotations";
import type { AnnotationEdits } from "./annotationCommands";

export type Of<S extends AnnotationSpec> = { piece: Annotation & { spec: S }; edits: AnnotationEdits };

const NOTHING: never[] = [];

/** The named styles of a project, as choices. */
export function useNamed(project: string, of: "text" | "dimension") {
  const { data: styles = NOTHING } = useAnnotationStyles(project);
  return styles.filter((style) => style.spec.of === of).map((style) => [style.id, style.name] as const);
}
