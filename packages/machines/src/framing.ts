/**
 * Parts a stream of bytes into lines that end with LF. Lines without an end are bounded: one that grows longer than
 * `longest` is dropped, as far as its end, and counted.
 */
export class LineFraming {
  private pieces: string[] = [];
  private length = 0;
  private skipping = false;
  /** Lines that were dropped. */
  dropped = 0;

  /** @param longest in characters */
  constructor(private readonly longest: number) {}

  /** @returns the lines that these bytes complete, without their ends */
  push(bytes: Uint8Array): string[] {
    const parts = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('latin1').split('\n');
    const lines: string[] = [];
    for (const [i, part] of parts.entries()) {
      this.add(part);
      if (i === parts.length - 1) break;
      if (!this.skipping) lines.push(this.pieces.join('').replace(/\r$/, ''));
      this.clear();
    }
    return lines;
  }

  /** Forgets what has come of a line: another stream begins. */
  clear(): void {
    this.pieces = [];
    this.length = 0;
    this.skipping = false;
  }

  private add(part: string): void {
    if (this.skipping || part === '') return;
    this.length += part.length;
    this.pieces.push(part);
    if (this.length <= this.longest) return;
    this.clear();
    this.skipping = true;
    this.dropped++;
  }
}
