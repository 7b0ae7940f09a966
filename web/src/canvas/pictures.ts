/**
 * Pictures of drawings, painted beside the page and kept. A picture that is not quite the one wanted serves
 * till it comes.
 */
import type { DrawingItem } from "../api/client";
import type { Cut } from "./hatching";
import type { Alike, Picked } from "./picking";
import type { Redrawn } from "./redrawn";
import type { Snap } from "./snapPoints";

export interface Style {
  pens: DrawingItem["pens"];
  layers: DrawingItem["layers"];
  cuts: readonly Cut[];
  /** What of the drawing is drawn otherwise. */
  redrawn: readonly (Omit<Redrawn, "cut"> & { cut?: Cut | undefined })[];
  /** No line is thinner than this, in the picture's pixels. */
  thinnest: number;
}

/**
 * What a picture shows: a region of the drawing in paper mm from where u = v = 0 lies, so many pixels to the
 * mm.
 */
export interface Wanted {
  linework: string;
  style: Style;
  ratio: number;
  turn: number;
  region: readonly [number, number, number, number];
  pixels: number;
}
export interface Picture extends Wanted {
  bitmap: ImageBitmap;
}

/** A question about what lies at a point of a drawing, in u and v. */
interface Question {
  linework: string;
  at: readonly [number, number];
  reach: number;
  ask: "element";
}
/** What the pointer snaps to, or what is under it to be drawn otherwise; what is hidden is neither. */
interface PickQuestion {
  linework: string;
  at: readonly [number, number];
  reach: number;
  ask: "pick" | "snap";
  redrawn: readonly Redrawn[];
}
/** Where lines lie that are drawn otherwise. */
interface PiecesQuestion {
  linework: string;
  ask: "pieces";
  redrawn: readonly Redrawn[];
}
/** Where the lines lie that are alike in what is said. */
interface AlikeQuestion {
  linework: string;
  ask: "alike";
  wanted: Alike;
}
/** A drawing that will be painted: it is fetched meanwhile. */
interface Coming {
  linework: string;
  ask: "fetch";
}
type AnyQuestion = Question | PickQuestion | PiecesQuestion | AlikeQuestion | Coming;
export type PainterRequest = { number: number } & (Wanted | AnyQuestion);
export interface PainterAnswer {
  number: number;
  bitmap?: ImageBitmap;
  found?: { element: string; middle: [number, number] } | null;
  snap?: Snap | null;
  picked?: Picked | null;
  /** For each that is drawn otherwise its lines; or those that are alike, as one. Real mm. */
  pieces?: [number, number][][][];
  problem?: string;
}

/** Where the board's own pictures are kept. */
export const BOARD = "board";
/** Pictures take no more memory than this; pixels of four bytes. */
const MAX_PIXELS = 48_000_000;

/** After so long a picture that could not be painted is tried again; milliseconds. */
const RETRY_AFTER = 3_000;
/** So many are asked for at once: the painter has the next to do while the page takes the last. */
const AT_ONCE = 2;
/** While more pictures of a place are on their way, those that came are shown so often; milliseconds. */
const SHOWN_EVERY = 120;

/** Somebody who shows the pictures of one place. */
class Watcher {
  private shown = performance.now();
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly place: string,
    private readonly answer: () => void,
  ) {}

  /** A picture has come for a place; or for all, where none is said. */
  told(place: string | undefined, isComing: (place: string) => boolean) {
    if (place !== undefined && !isOf(place, this.place)) return;
    const rest = SHOWN_EVERY - (performance.now() - this.shown);
    if (!isComing(this.place) || rest <= 0) this.show();
    else this.timer ??= setTimeout(() => this.show(), rest);
  }

  stop() {
    clearTimeout(this.timer);
    this.timer = undefined;
  }

  private show() {
    this.stop();
    this.shown = performance.now();
    this.answer();
  }
}
/** Whether what is kept as `kept` is of a place. */
const isOf = (kept: string, place: string) => kept.startsWith(`${place}/`);

class Pictures {
  private worker: Worker | null = null;
  private readonly made = new Map<string, Picture>();
  private readonly waiting = new Map<string, Wanted>();
  private readonly failed = new Set<string>();
  private readonly answers = new Map<number, (answer: PainterAnswer) => void>();
  private readonly watchers = new Set<Watcher>();
  private readonly busy = new Set<string>();
  private number = 0;

  /** Be called when pictures of a place have come, and when all are, until what is returned is called. */
  watch(place: string, answer: () => void): () => void {
    const watcher = new Watcher(place, answer);
    this.watchers.add(watcher);
    return () => {
      watcher.stop();
      this.watchers.delete(watcher);
    };
  }

  /** Start the painter, where it does not run yet: it takes a moment. */
  start(): Worker {
    if (!this.worker) {
      this.worker = new Worker(new URL("./painter.worker.ts", import.meta.url), { type: "module" });
      this.worker.onmessage = ({ data }: MessageEvent<PainterAnswer>) => {
        this.answers.get(data.number)?.(data);
        this.answers.delete(data.number);
      };
    }
    return this.worker;
  }

  /** Have drawings fetched that will be painted soon. */
  prepare(lineworks: readonly string[]) {
    for (const linework of new Set(lineworks)) void this.ask({ linework, ask: "fetch" });
  }

  /**
   * The best picture there is in a place. One that does not show what is needed is replaced by what is
   * wanted.
   */
  get(
    place: string,
    wanted: Wanted,
    need = wanted.region,
  ): { picture: Picture | undefined; complete: boolean } {
    const picture = this.made.get(place);
    if (picture) {
      this.made.delete(place); // what was looked at last is forgotten last
      this.made.set(place, picture);
    }
    const complete =
      (picture !== undefined && serves(picture, wanted, need)) || this.failed.has(wanted.linework);
    if (complete) this.waiting.delete(place);
    else {
      this.waiting.set(place, wanted);
      this.next();
    }
    // Another drawing, or the same turned, would show what is not there.
    const usable = picture && picture.turn === wanted.turn ? picture : undefined;
    return { picture: usable, complete };
  }

  /** The element nearest to a point of a drawing, and its middle. */
  async elementAt(linework: string, at: readonly [number, number], reach: number) {
    return (await this.ask({ linework, at, reach, ask: "element" })).found ?? null;
  }

  /** What the pointer snaps to at a point of a drawing. */
  async snapAt(linework: string, at: readonly [number, number], reach: number, redrawn: readonly Redrawn[]) {
    return (await this.ask({ linework, at, reach, redrawn, ask: "snap" })).snap ?? null;
  }

  /** The line under the pointer, or what is cut there. */
  async pickAt(linework: string, at: readonly [number, number], reach: number, redrawn: readonly Redrawn[]) {
    return (await this.ask({ linework, at, reach, redrawn, ask: "pick" })).picked ?? null;
  }

  /** Where the lines lie that are drawn otherwise, for each of `redrawn`. */
  async piecesOf(linework: string, redrawn: readonly Redrawn[]) {
    return (await this.ask({ linework, redrawn, ask: "pieces" })).pieces ?? [];
  }

  /** Where the lines lie that are alike. */
  async alike(linework: string, wanted: Alike) {
    return (await this.ask({ linework, wanted, ask: "alike" })).pieces?.[0] ?? [];
  }

  /** Something else that is painted has come. */
  tell(place?: string) {
    const isComing = (of: string) => [...this.waiting.keys(), ...this.busy].some((kept) => isOf(kept, of));
    for (const watcher of this.watchers) watcher.told(place, isComing);
  }

  private next() {
    if (this.busy.size >= AT_ONCE) return;
    const free = [...this.waiting].filter(([place]) => !this.busy.has(place));
    // What is under the pointer comes before what is only looked at small.
    const first = free.find(([place]) => isOf(place, BOARD)) ?? free[0];
    if (!first) return;
    const [place, wanted] = first;
    this.waiting.delete(place);
    this.busy.add(place);
    void this.ask(wanted).then(({ bitmap }) => {
      this.busy.delete(place);
      if (bitmap) {
        this.made.get(place)?.bitmap.close();
        this.made.delete(place);
        this.made.set(place, { ...wanted, bitmap });
        this.thinOut();
      } else this.retryLater(wanted.linework);
      this.next();
      this.tell(place);
    });
  }

  /** A connection that is lost comes back: whoever watches asks once more then. */
  private retryLater(linework: string) {
    this.failed.add(linework);
    setTimeout(() => {
      this.failed.delete(linework);
      this.tell();
    }, RETRY_AFTER);
  }

  private thinOut() {
    let size = 0;
    for (const { bitmap } of this.made.values()) size += bitmap.width * bitmap.height;
    for (const [place, { bitmap }] of this.made) {
      if (size <= MAX_PIXELS) return;
      size -= bitmap.width * bitmap.height;
      bitmap.close();
      this.made.delete(place);
    }
  }

  private ask(question: Wanted | AnyQuestion): Promise<PainterAnswer> {
    const number = ++this.number;
    this.start().postMessage({ ...question, number });
    return new Promise((resolve) => this.answers.set(number, resolve));
  }
}

export const pictures = new Pictures();

function serves(picture: Picture, wanted: Wanted, b: Wanted["region"]): boolean {
  const a = picture.region;
  return (
    picture.linework === wanted.linework &&
    picture.turn === wanted.turn &&
    picture.ratio === wanted.ratio &&
    Math.abs(picture.pixels / wanted.pixels - 1) < 1e-6 &&
    a[0] <= b[0] &&
    a[1] <= b[1] &&
    a[2] >= b[2] &&
    a[3] >= b[3] &&
    (picture.style === wanted.style || JSON.stringify(picture.style) === JSON.stringify(wanted.style))
  );
}
