/** The API, typed from its schema. Every failure becomes an ApiError with a sentence for the screen. */
import createClient, { type Middleware } from "openapi-fetch";
import type { components, paths } from "./schema";
import { t } from "../words/words";
import { withPage } from "./withPage";

// What may be left out when a row is written is always there when it is read.
export type Project = Required<components["schemas"]["Project"]>;
type Schemas = components["schemas"];
export type LineSettings = Partial<Omit<Schemas["LineSettings"], "far" | "contours">> & {
  far?: number | null;
  contours?: number | null;
};
export type Shown = Partial<Schemas["Shown"]>;
/** A view as its kind describes it: each kind has some of these. */
export interface ViewSpec {
  kind: Schemas["ViewSpec"]["kind"];
  storey?: string;
  cut?: number;
  depth?: number | null;
  side?: Schemas["Elevation"]["side"] | null;
  corner?: Schemas["CornerEnum"] | null;
  bearing?: number | null;
  altitude?: number | null;
  near?: number | null;
  line?: [number, number][];
  eye?: [number, number, number];
  target?: [number, number, number];
  angle?: number;
  of?: ViewSpec;
  region?: Schemas["Detail"]["region"];
  file?: string;
  name?: string;
  mm?: number;
  origin?: [number, number];
  page?: number;
  line_settings?: LineSettings;
  shown?: Shown;
}
export type View = Required<Omit<Schemas["View"], "spec">> & { spec: ViewSpec };
export type NamedLineSettings = Required<Omit<Schemas["NamedLineSettings"], "settings">> & {
  settings: LineSettings;
};
export type Subset = Required<components["schemas"]["Subset"]>;
export type Sheet = Required<components["schemas"]["Sheet"]>;
export type Viewport = Required<components["schemas"]["Viewport"]>;
export type ModelVersion = components["schemas"]["ModelVersion"];
export type Job = components["schemas"]["Job"];
export type Rung = components["schemas"]["Rung"];
export type Part = components["schemas"]["Part"];
export type TemplateSpec = Required<components["schemas"]["TemplateSpec"]>;
export type Template = Required<Omit<components["schemas"]["Template"], "spec">> & { spec: TemplateSpec };
export type Stroke = Partial<components["schemas"]["Stroke"]>;
export type Cut = Schemas["CutStyle"];
export type PenSpec = Required<components["schemas"]["PenTableSpec"]>;
export type PenTable = Required<Omit<components["schemas"]["PenTable"], "spec">> & { spec: PenSpec };
export type PenParts = components["schemas"]["PenParts"];
export type PlotSpec = Schemas["PlotSettingsSpec"];
export type PlotSettings = Required<Omit<components["schemas"]["PlotSettings"], "spec">> & { spec: PlotSpec };
export type Plot = Schemas["Plot"];
export type PlotForm = Schemas["PlotRequestFormEnum"];
export type Register = Required<Schemas["Register"]>;
export type DeviceKind = Schemas["DeviceKind"];
export type SheetList = Required<components["schemas"]["SheetList"]>;
export type Device = components["schemas"]["Device"];
export type Print = components["schemas"]["Print"];
export type Page = components["schemas"]["Page"];
export type Picture = components["schemas"]["Picture"];
export type Revision = Required<components["schemas"]["Revision"]>;
export type Field = components["schemas"]["Field"];
export type Anchor = Schemas["Anchor"];
export type NoteSpec = Schemas["Note"];
export type DimensionSpec = Schemas["Dimension"];
export type SpotLevelSpec = Schemas["SpotLevel"];
export type ScheduleSpec = Schemas["Schedule"];
export type CloudSpec = Schemas["Cloud"];
export type TagSpec = Schemas["Tag"];
export type NumberedNoteSpec = Schemas["NumberedNote"];
export type MeasureSpec = Schemas["Measure"];
export type ShapeSpec = Schemas["Shape"];
export type SymbolPieceSpec = Schemas["Symbol"];
export type ImageSpec = Schemas["ImagePiece"];
export type TableSpec = Schemas["FreeTable"];
export type AnnotationSpec =
  | NoteSpec
  | NumberedNoteSpec
  | DimensionSpec
  | MeasureSpec
  | SpotLevelSpec
  | ScheduleSpec
  | TableSpec
  | CloudSpec
  | TagSpec
  | ShapeSpec
  | SymbolPieceSpec
  | ImageSpec;
/** What of a list of notes stands on drawings as numbers. */
export type ListedNote = Required<Schemas["NoteOfList"]>;
export type TextStyleSpec = Schemas["TextStyle"];
export type DimensionStyleSpec = Schemas["DimensionStyle"];
export type AnnotationStyle = Required<Omit<Schemas["AnnotationStyle"], "spec">> & {
  spec: TextStyleSpec | DimensionStyleSpec;
};
export type LibrarySymbol = Required<Schemas["LibrarySymbol"]>;
export type SymbolDrawing = Schemas["SymbolSpec"];
export type TableFile = Required<Schemas["TableFile"]>;
export type ReceivedFile = Required<Schemas["ReceivedFile"]>;
/** What is shown of a view: lines, colours, light. */
export type Appearance = NonNullable<Viewport["appearance"]>;
export type TouchUp = Required<Schemas["TouchUp"]>;
export type TouchUpSpec = TouchUp["spec"];
export type TouchUpChange = TouchUpSpec["change"];
export type TouchUpChoice = TouchUpSpec["choice"];
export type Annotation = Required<Omit<Schemas["Annotation"], "spec">> & { spec: AnnotationSpec };
export type PieceBox = Schemas["PieceBox"];
export type Finding = Schemas["Finding"];
export type Severity = Finding["severity"];
export type Checks = Omit<Schemas["Checks"], "findings"> & { findings: Finding[] };
export type Rule = Schemas["Rule"];
export type Waiver = Required<Schemas["Waiver"]>;
export type CheckRules = Required<Schemas["CheckRules"]>;
export type RecipientSpec = Schemas["RecipientSpec"];
export type Recipient = Required<Omit<Schemas["Recipient"], "spec">> & { spec: RecipientSpec };
export type Issue = Schemas["Issue"];
export type IssuedSheet = Schemas["IssuedSheet"];
export type IssuedRecipient = Schemas["IssuedRecipient"];
export type DayState = Schemas["DayState"];
export type RevisionOffer = Schemas["RevisionOffer"];
export type RevisionScheme = Schemas["RevisionScheme"];
export type Difference = Schemas["Difference"];
export type Comparison = Schemas["Comparison"];
export type Review = Schemas["Review"];
export type Mark = Schemas["CommentMarks"][number];
export type MarkKind = Mark["kind"];
/** What lies of the building at the place of a comment, as far as it is known. */
export interface MarkedElement {
  id?: string;
  name?: string;
  ifc_class?: string;
  at?: [number, number, number];
}
export type Comment = Required<Omit<Schemas["Comment"], "element">> & { element: MarkedElement };
export type Said = Omit<Schemas["Said"], "element"> & { element: MarkedElement };
export type CommentFile = Required<Schemas["CommentFile"]>;
export type UnreadableRow = Schemas["Unreadable"];
export type Scan = Required<Schemas["Scan"]>;
export type ScanFile = Schemas["ScanFile"];
export type CommentState = Comment["state"];
export type LookedAt = Schemas["LookedAt"];
export type LookedAtSheet = Schemas["LookedAtSheet"];
export type TileLevel = Schemas["TileLevel"];
export type DisplayList = components["schemas"]["DisplayList"];
export type DisplayItem = DisplayList["items"][number];
export type DrawingItem = Extract<DisplayItem, { type: "drawing" }>;

export type Preferences = Required<Schemas["Preferences"]>;
export type SizeQuestion = Required<Schemas["SizeQuestion"]>;
export type Unit = Schemas["FileUnit"];
export type Person = Required<Schemas["Person"]>;

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

/** This page's name, by which the server knows which changes are its own. */
export const TAB = crypto.randomUUID();

const errors: Middleware = {
  onRequest({ request }) {
    if (request.method === "GET") return;
    request.headers.set("X-CSRFToken", csrfToken());
    request.headers.set("X-Dunefold-Tab", TAB);
  },
  async onResponse({ response }) {
    if (!response.ok) throw await errorOf(response);
  },
  onError() {
    return new ApiError(
      0,
      t("Dunefold cannot be reached. What you have is kept; try again when the connection is back."),
    );
  },
};

export async function errorOf(response: Response): Promise<ApiError> {
  const body = (await response.json().catch(() => ({}))) as { detail?: string; current?: unknown };
  return new ApiError(
    response.status,
    body.detail ?? t("The server answered with an error ({status}).", { status: response.status }),
    body.current,
  );
}

export const api = createClient<paths>({ baseUrl: "/" });
api.use(errors, withPage);

/** What a call answered, every field of it; the middleware has thrown where it failed. */
export async function data<T>(call: Promise<{ data?: T }>): Promise<Whole<T>> {
  return (await call).data as Whole<T>;
}
type Whole<T> = T extends readonly (infer Row)[] ? Required<Row>[] : T extends object ? Required<T> : T;
