/** Lets the page get to a frame, and to what was pressed meanwhile, between two pieces of work on much. */
export function breathe(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve));
}
