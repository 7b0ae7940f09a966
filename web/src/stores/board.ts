/** How the board stands: its camera, and what is open beside the sheet. */
import { create } from "zustand";
import { fitted, fittedBeside, type Box, type Camera } from "../canvas/geometry";

interface Board {
  camera: Camera | null;
  /** Where it is on the page. */
  element: HTMLElement | null;
  /** The paper, mm, and the room for it, pixels. */
  paper: Box | null;
  room: { width: number; height: number };
  /** What is to be seen when the sheet that one goes to comes to the board; null for all of it. */
  lookAt: Box | null;
  /** The sheet that is on the board with all its drawings, by its id. */
  painted: string | null;
  /** What the board shows of its sheet: x, y, width and height, paper mm. */
  seen: readonly [number, number, number, number] | null;
  /** The template that is being edited on the sheet, by its id. */
  template: string | null;
  /** Whether drawings are in working colours on the board, and not as they are plotted. */
  workingColours: boolean;
  rackOpen: boolean;
  helpOpen: boolean;
  guideOpen: boolean;
}

export const useBoard = create<Board>()(() => ({
  camera: null,
  element: null,
  paper: null,
  room: { width: 0, height: 0 },
  lookAt: null,
  painted: null,
  seen: null,
  template: null,
  workingColours: false,
  rackOpen: false,
  helpOpen: false,
  guideOpen: false,
}));

/** Up to where the tools for annotation reach from the left of the board, pixels. */
const TOOLS = 164;

/** With which camera a sheet comes to the board: all of it is seen, beside the tools. */
export const cameraOf = (
  { width, height }: Pick<Box, "width" | "height">,
  room = useBoard.getState().room,
): Camera => fittedBeside({ x: 0, y: 0, width, height }, room, TOOLS);

/** How large the board was last, and the window that it was in: widths and heights, pixels. */
const ROOM = "dunefold.board";

/** How large the board will be, as far as it is known before anything is laid out. */
export function roomToCome(): Board["room"] | null {
  const [width = 0, height = 0, ...outer] = (localStorage.getItem(ROOM) ?? "").split(" ").map(Number);
  return width && height && outer.join() === `${innerWidth},${innerHeight}` ? { width, height } : null;
}

/** The board has this size now. */
export function keepRoom({ width, height }: Board["room"]) {
  if (width && height) localStorage.setItem(ROOM, [width, height, innerWidth, innerHeight].join(" "));
}

/** Let a part of the sheet fill the board; all of it where none is named, and then beside the tools. */
export function fitTo(box?: Box) {
  const { paper, room } = useBoard.getState();
  const wanted = box ?? paper;
  if (wanted && room.width) useBoard.setState({ camera: box ? fitted(box, room) : cameraOf(wanted) });
}
