/** What holds in a program at a line (RS-274): places in mm and F in mm/min, in the machine's own frame. */
export interface ProgramState {
  /** G0 and G1 go straight, G2 and G3 along arcs. */
  readonly motion: 0 | 1 | 2 | 3;
  /** Where the centre of the last arc is, seen from its beginning. */
  readonly i: number;
  readonly j: number;
  readonly x: number;
  readonly y: number;
  readonly z: number;
  readonly feed: number;
  readonly power: number;
  /** The line that put the beam on or off last, such as `M4Q40` or `M5`. */
  readonly beam: string;
  /** The line that switched the air last; null where none has. */
  readonly air: string | null;
}

/** As machines are before a program of ours has said anything. */
export const firstState: ProgramState = {
  motion: 0,
  i: 0,
  j: 0,
  x: 0,
  y: 0,
  z: 0,
  feed: 0,
  power: 0,
  beam: 'M5',
  air: null,
};

/** The words of a line, by their letters; G words besides G0 to G3 are left out. Comments have none. */
export function wordsOf(text: string): ReadonlyMap<string, number> {
  const words = new Map<string, number>();
  for (const [, letter, value] of text.replace(/\([^()]*\)/g, '').matchAll(/([A-Z])(-?(?:\d+\.?\d*|\.\d+))/g)) {
    if (letter !== 'G' || Number(value) < 4) words.set(letter, Number(value));
  }
  return words;
}

/** Whether a line moves the head over the bed. */
export function isMove(words: ReadonlyMap<string, number>): boolean {
  return words.has('X') || words.has('Y');
}

/** What holds after a line of a program that Lambent wrote. */
export function afterLine(before: ProgramState, text: string): ProgramState {
  const words = wordsOf(text);
  const beam = /^M0?[345]/.test(text) ? text : before.beam;
  // A beam that is put on otherwise keeps its power where none is said.
  const air = /^M0?[789]/.test(text) ? text : before.air;
  return {
    motion: (words.get('G') as ProgramState['motion'] | undefined) ?? before.motion,
    i: words.get('I') ?? before.i,
    j: words.get('J') ?? before.j,
    x: words.get('X') ?? before.x,
    y: words.get('Y') ?? before.y,
    z: words.get('Z') ?? before.z,
    feed: words.get('F') ?? before.feed,
    power: words.get('S') ?? before.power,
    beam,
    air,
  };
}
