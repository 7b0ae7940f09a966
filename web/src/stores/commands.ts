/** What can be done on the page that is open, for those who look for it by name. */
import { useEffect } from "react";
import { create } from "zustand";

type Named = readonly [name: string, command: () => void];

interface Commands {
  commands: readonly Named[];
  /** Whether one is looking for something by its name just now. */
  jumping: boolean;
}

export const useCommands = create<Commands>()(() => ({ commands: [], jumping: false }));

/** Offer commands while a page is open. */
export function useOffered(commands: readonly Named[]) {
  useEffect(() => {
    useCommands.setState({ commands });
    return () => useCommands.setState({ commands: [] });
  }, [commands]);
}
