/** All that can be done to the sheets of a project and what stands on them. Each can be undone. */
import { useMemo } from "react";
import { registerEdits } from "./registerCommands";
import { viewportEdits } from "./viewportCommands";

export function useEdits(project: string) {
  return useMemo(() => ({ ...viewportEdits(project), ...registerEdits(project) }), [project]);
}

export type Edits = ReturnType<typeof useEdits>;
