/** Changes on their way to the server, and answers that would know nothing of them. */
let count = 0;
/** Grows whenever a change sets out or arrives. */
let stamp = 0;

export const isWriting = () => count > 0;

export async function whileWriting<T>(write: () => Promise<T>): Promise<T> {
  count += 1;
  stamp += 1;
  try {
    return await write();
  } finally {
    count -= 1;
    stamp += 1;
  }
}

/** How long an answer waits for changes that are still on their way; milliseconds. */
const PAUSE = 60;

/** What the server has, asked again until no change of one's own has come between question and answer. */
export async function consistent<T>(ask: () => Promise<T>): Promise<T> {
  for (;;) {
    while (isWriting()) await new Promise((resolve) => setTimeout(resolve, PAUSE));
    const before = stamp;
    const answer = await ask();
    if (stamp === before) return answer;
  }
}
