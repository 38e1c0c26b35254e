/** Waits for something that comes in its own time: a dialog that is fetched when it is wanted, a request, a file. */
export async function until<T>(look: () => T): Promise<NonNullable<T>> {
  for (let tries = 0; tries < 300; tries += 1) {
    const seen = look();
    if (seen) return seen;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  throw new Error('it never came');
}
