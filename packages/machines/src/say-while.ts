const everyMs = 20;

/**
 * Says something again and again for as long as it has had no effect.
 * @param withinMs the longest that it is said
 */
export async function sayWhile(isNeeded: () => boolean, say: () => void, withinMs: number): Promise<void> {
  const end = performance.now() + withinMs;
  while (isNeeded() && performance.now() < end) {
    say();
    await new Promise((resolve) => setTimeout(resolve, everyMs));
  }
}
