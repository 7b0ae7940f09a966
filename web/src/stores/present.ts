/** Who else is in the project just now, and whether the server tells of it. */
import { create } from "zustand";
import type { Person } from "../api/client";

interface Present {
  /** Whether changes are told as they happen; else they are looked for now and then. */
  listening: boolean;
  /** Whether the connection has been gone for so long that it is to be said. */
  away: boolean;
  others: readonly Person[];
}

export const usePresent = create<Present>()(() => ({ listening: false, away: false, others: [] }));

/** The names of those who are somewhere, each once. */
export const namesOf = (people: readonly Person[]): string[] =>
  [...new Set(people.map((person) => person.user))].sort((a, b) => a.localeCompare(b));

/** A name in one or two letters. */
export const initialsOf = (name: string): string => {
  const words = name.split(/[\s._@-]+/).filter(Boolean);
  const [first = "?", second] = words;
  return (second ? first.slice(0, 1) + second.slice(0, 1) : first.slice(0, 2)).toUpperCase();
};
