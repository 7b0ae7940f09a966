/** What a page shows is asked for while its script is still being read: neither has to wait for the other. */
import { matchPath } from "react-router-dom";
import { projectBy, sessionNow } from "./api/projects";
import { queryClient } from "./api/queryClient";
import { displayOf, openOf, sheetsOf, viewportsOf } from "./api/sheets";
import { askTogether, BESIDE, PAINTED } from "./api/together";
import { prepare } from "./canvas/paint";
import { pictures } from "./canvas/pictures";
import { cameraOf, roomToCome } from "./stores/board";

/** Ask for what is behind an address. What cannot be had is asked for again by the page, which says so. */
export function askAhead(path: string) {
  const { project, station, subject } =
    matchPath("/projects/:project/:station/:subject?", path)?.params ?? {};
  if (!project) return;
  void queryClient.prefetchQuery(sessionNow());
  void queryClient.prefetchQuery(projectBy(project));
  if (station === "sheets") askForSheets(project, subject).catch(() => undefined);
}

/** What is painted comes first: the sheet, its display list, its drawings and their pictures. */
async function askForSheets(project: string, subject: string | undefined) {
  pictures.start();
  askTogether(project, PAINTED);
  if (subject) void queryClient.prefetchQuery(displayOf(subject));
  const sheet = openOf(await queryClient.fetchQuery(sheetsOf(project)), subject);
  if (sheet) void queryClient.prefetchQuery(displayOf(sheet.id));
  const viewports = await queryClient.fetchQuery(viewportsOf(project));
  const on = viewports.filter((v) => v.sheet === sheet?.id);
  pictures.prepare(on.flatMap((v) => v.linework ?? []));
  askTogether(project, BESIDE);
  const room = roomToCome();
  if (!sheet || !room) return;
  const display = await queryClient.fetchQuery(displayOf(sheet.id));
  prepare(display, on, cameraOf(display, room), room);
}
