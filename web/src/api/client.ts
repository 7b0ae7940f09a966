/** The API, typed from its schema. Every failure becomes an ApiError with a sentence for the screen. */
import createClient, { type Middleware } from "openapi-fetch";
import type { components, paths } from "./schema";

// What may be left out when a row is written is always there when it is read.
export type Project = Required<components["schemas"]["Project"]>;
export type View = Required<components["schemas"]["View"]>;
export type NamedTreatment = Required<components["schemas"]["NamedTreatment"]>;
export type Subset = Required<components["schemas"]["Subset"]>;
export type Sheet = Required<components["schemas"]["Sheet"]>;
export type Viewport = Required<components["schemas"]["Viewport"]>;
export type ModelVersion = components["schemas"]["ModelVersion"];
export type Job = components["schemas"]["Job"];
export type Rung = components["schemas"]["Rung"];
export type Part = components["schemas"]["Part"];
export type TemplateSpec = Required<components["schemas"]["Spec"]>;
export type Template = Required<Omit<components["schemas"]["Template"], "spec">> & { spec: TemplateSpec };
export type Stroke = components["schemas"]["Stroke"];
export type Cut = components["schemas"]["Cut"];
export type PenSpec = Required<components["schemas"]["PenSpec"]>;
export type PenTable = Required<Omit<components["schemas"]["PenTable"], "spec">> & { spec: PenSpec };
export type PenStock = components["schemas"]["PenStock"];
export type PlotSpec = Required<components["schemas"]["PlotSpec"]>;
export type PlotSettings = Required<Omit<components["schemas"]["PlotSettings"], "spec">> & { spec: PlotSpec };
export type PlotStock = components["schemas"]["PlotStock"];
export type SheetList = Required<components["schemas"]["SheetList"]>;
export type Device = components["schemas"]["Device"];
export type Print = components["schemas"]["Print"];
export type Page = components["schemas"]["Page"];
export type Stock = components["schemas"]["Stock"];
export type Picture = components["schemas"]["Picture"];
export type Revision = Required<components["schemas"]["Revision"]>;
export type Field = components["schemas"]["Field"];
export type DisplayList = components["schemas"]["DisplayList"];
export type DisplayItem = DisplayList["items"][number];
export type DrawingItem = Extract<DisplayItem, { type: "drawing" }>;

export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly current?: unknown,
  ) {
    super(message);
  }
}

export function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? "";
}

const errors: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", csrfToken());
  },
  async onResponse({ response }) {
    if (!response.ok) throw await errorOf(response);
  },
  onError() {
    return new ApiError(0, "Dunefold cannot be reached. What you have is kept; try again when the connection is back.");
  },
};

export async function errorOf(response: Response): Promise<ApiError> {
  const body = (await response.json().catch(() => ({}))) as { detail?: string; current?: unknown };
  return new ApiError(response.status, body.detail ?? `The server answered with an error (${response.status}).`, body.current);
}

export const api = createClient<paths>({ baseUrl: "/" });
api.use(errors);

/** What a call brought, every field of it; the middleware has thrown where it failed. */
export async function data<T>(call: Promise<{ data?: T }>): Promise<Whole<T>> {
  return (await call).data as Whole<T>;
}
type Whole<T> = T extends readonly (infer Row)[] ? Required<Row>[] : T extends object ? Required<T> : T;
