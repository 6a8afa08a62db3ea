/** Counts how long nothing was heard, and how much was burnt meanwhile. */
export class Watch {
  /** So many seconds of silence hold a run; 0 for none. */
  private limitS = 0;
  private silentS = 0;
  private burntUnheardS = 0;
  /** The longest, in machine seconds, that was burnt without anything being heard. */
  unheardS = 0;

  /** `watch N`: a run is held, the beam off, when nothing was heard for N seconds; 0 ends that. */
  takeWord(line: string): string | null {
    const words = /^watch\s+(\d{1,4}(?:\.\d+)?)$/i.exec(line.trim());
    if (!words) return null;
    this.limitS = Number(words[1]);
    return 'ok';
  }

  /** Something was heard, whatever it was. */
  heard(): void {
    this.silentS = 0;
    this.burntUnheardS = 0;
  }

  /** Nothing was heard for so many seconds more. @returns why a run is to be held; null while it is not */
  silent(seconds: number): string | null {
    this.silentS += seconds;
    return this.limitS > 0 && this.silentS > this.limitS ? `nothing was heard for ${this.limitS} s` : null;
  }

  /** A run was begun, or ended: what it burnt is counted by itself. */
  begin(): void {
    this.burntUnheardS = 0;
  }

  burnt(seconds: number): void {
    this.burntUnheardS += seconds;
    this.unheardS = Math.max(this.unheardS, this.burntUnheardS);
  }
}
