/** How many changes are on their way to the server; while there are any, nobody asks for rows that would be older. */
let count = 0;

export const isWriting = () => count > 0;

export async function whileWriting<T>(write: () => Promise<T>): Promise<T> {
  count += 1;
  try {
    return await write();
  } finally {
    count -= 1;
  }
}
