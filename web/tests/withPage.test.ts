/** Answers that come with the page. */
import createClient from "openapi-fetch";
import { expect, it, vi } from "vitest";
import type { paths } from "../src/api/schema";
import { answeredFrom, answersIn } from "../src/api/withPage";

const SESSION = { username: "ines", administers: false };

/** What is asked of a page with an answer for the session, and how often the server was. */
async function asked(age: number, times: number) {
  const server = vi.fn(() => Promise.resolve(Response.json({ username: "" })));
  const api = createClient<paths>({ baseUrl: "http://office.example/", fetch: server });
  api.use(answeredFrom(answersIn(JSON.stringify({ "/api/session/": SESSION })), () => age));
  const answers = [];
  for (let k = 0; k < times; k++) answers.push((await api.GET("/api/session/")).data?.username);
  return [answers, server.mock.calls.length];
}

it("serve the first who asks, and the server the next", async () => {
  expect(await asked(500, 2)).toEqual([["ines", ""], 1]);
});

it("are not taken for true once they are old", async () => {
  expect(await asked(60_000, 1)).toEqual([[""], 1]);
});

it("are told apart by what is asked in the address", async () => {
  const server = vi.fn(() => Promise.resolve(Response.json([])));
  const api = createClient<paths>({ baseUrl: "http://office.example/", fetch: server });
  const address = "/api/rows/?project=p&kinds=sheets&kinds=viewports";
  api.use(answeredFrom(answersIn(JSON.stringify({ [address]: { sheets: [], viewports: [] } })), () => 0));
  const rows = (kinds: ("sheets" | "viewports" | "views")[]) =>
    api.GET("/api/rows/", { params: { query: { project: "p", kinds } } });
  await rows(["views"]);
  expect(server).toHaveBeenCalledTimes(1);
  expect((await rows(["sheets", "viewports"])).data).toEqual({ sheets: [], viewports: [] });
  expect(server).toHaveBeenCalledTimes(1);
});

it("are none where the page is not the server's", () => {
  expect(answersIn('{{ answers|json_script:"answers" }}').size).toBe(0);
  expect(answersIn(undefined).size).toBe(0);
});
