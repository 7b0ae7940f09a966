/** How somebody likes the interface to be: kept with the account, and in the browser until that is known. */
import { create } from "zustand";
import { persist } from "zustand/middleware";
import { api, data, type Preferences } from "../api/client";
import { ofBrowser, spoken } from "../words/words";

const STANDARD: Preferences = {
  language: ofBrowser(),
  titles: ofBrowser(),
  dates: "iso",
  lengths: "metres",
  register: "pictures",
  first_steps: true,
};

export const usePreferences = create<Preferences>()(
  persist((): Preferences => STANDARD, { name: "dunefold.preferences" }),
);

/** What the account has; in another language the page is loaded anew. */
export async function loadPreferences() {
  usePreferences.setState(await data(api.GET("/api/account/preferences/")));
  if (usePreferences.getState().language !== spoken()) location.reload();
}

/** Have the page in another language, once that is kept with the account. */
export async function preferLanguage(language: Preferences["language"]) {
  usePreferences.setState(await data(api.PATCH("/api/account/preferences/", { body: { language } })));
  location.reload();
}

/** Have something otherwise from now on; where it cannot be kept it holds for this browser. */
export function prefer(change: Partial<Preferences>) {
  usePreferences.setState(change);
  data(api.PATCH("/api/account/preferences/", { body: change })).catch(() => undefined);
}
