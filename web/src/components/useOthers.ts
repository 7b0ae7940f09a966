import { useMemo } from "react";
import type { Person } from "../api/client";
import { useSession } from "../api/projects";
import { usePresent } from "../stores/present";

/** The pages that other people have open in the project. */
export function useOthers(): readonly Person[] {
  const others = usePresent((s) => s.others);
  const me = useSession().data?.username;
  return useMemo(() => others.filter((other) => other.user !== me), [others, me]);
}
