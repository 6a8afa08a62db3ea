/** A reason, such as `the port is gone`, as a sentence of its own. */
export function asSentence(reason: string): string {
  return `${reason[0].toUpperCase()}${reason.slice(1)}.`;
}
