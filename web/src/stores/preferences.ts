/** How somebody likes the interface to be: kept with the account, and in the browser until that is known. */
import { create } from "zustand";
import { persist } from "zustand/middleware";
import { api, data, type Preferences } from "../api/client";

const STANDARD: Preferences = { dates: "iso", lengths: "metres", register: "pictures", first_steps: true };

export const usePreferences = create<Preferences>()(
  persist((): Preferences => STANDARD, { name: "dunefold.preferences" }),
);

/** What the account has. */
export async function loadPreferences() {
  usePreferences.setState(await data(api.GET("/api/account/preferences/")));
}

/** Have something otherwise from now on; where it cannot be kept it holds for this browser. */
export function prefer(change: Partial<Preferences>) {
  usePreferences.setState(change);
  data(api.PATCH("/api/account/preferences/", { body: change })).catch(() => undefined);
}
