/** What a page shows is asked for while its script is still being read: neither has to wait for the other. */
import { matchPath } from "react-router-dom";
import { projectBy, sessionNow } from "./api/projects";
import { queryClient } from "./api/queryClient";
import { displayOf, openOf, sheetsOf, viewportsOf } from "./api/sheets";
import { askTogether, BESIDE, PAINTED } from "./api/together";
import { pictures } from "./canvas/pictures";

/** Ask for what is behind an address. What cannot be had is asked for again by the page, which says so. */
export function askAhead(path: string) {
  const { project, station, subject } =
    matchPath("/projects/:project/:station/:subject?", path)?.params ?? {};
  if (!project) return;
  void queryClient.prefetchQuery(sessionNow());
  void queryClient.prefetchQuery(projectBy(project));
  if (station === "sheets") askForSheets(project, subject).catch(() => undefined);
}

/** What is painted comes first: the sheet, its display list and its drawings. */
async function askForSheets(project: string, subject: string | undefined) {
  pictures.start();
  askTogether(project, PAINTED);
  if (subject) void queryClient.prefetchQuery(displayOf(subject));
  const sheet = openOf(await queryClient.fetchQuery(sheetsOf(project)), subject);
  if (sheet) void queryClient.prefetchQuery(displayOf(sheet.id));
  askTogether(project, BESIDE);
  const viewports = await queryClient.fetchQuery(viewportsOf(project));
  pictures.prepare(viewports.flatMap((v) => (v.sheet === sheet?.id && v.linework) || []));
}
