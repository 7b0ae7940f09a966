/** How often lists are looked at: seldom where the server tells of changes as they happen. */
import { isWriting } from "./writing";

/** Between two looks at what is told as well, which only make sure; milliseconds. */
const [SELDOM, SURE] = [60_000, 2_000] as const;
let told = false;

/** Note whether changes are told as they happen. */
export const setTold = (to: boolean) => {
  told = to;
};

/** What others change appears by itself; not in the middle of one's own writing. */
export const watched = () => (isWriting() ? false : told ? SELDOM : 8_000);

/** The wait before what a job does is looked at again, if nobody tells: while it is under way, and else. */
export const watchedJob = (active: boolean, often: number, else_: number) =>
  told ? (active ? Math.max(SURE, often) : SELDOM) : active ? often : else_;
