import type { MachineStatus } from '../driver.ts';

/** What a status of the plain language says (docs/plain-language.md). */
export interface PlainStatus extends Pick<MachineStatus, 'reason' | 'x' | 'y' | 'z' | 'feed' | 'power'> {
  readonly state: Exclude<MachineStatus['state'], 'away'>;
  /** It was told to hold, and is still coming to rest. */
  readonly isSlowing: boolean;
  /** How many moves, and how many characters, it would take more; null where it does not tell. */
  readonly room: { readonly moves: number; readonly characters: number } | null;
}

const states: Readonly<Record<string, PlainStatus['state']>> = {
  Idle: 'idle',
  // It would take a program, and make no move of it.
  Check: 'alarm',
  Run: 'running',
  Jog: 'running',
  Hold: 'held',
  Door: 'held',
  Home: 'homing',
  Alarm: 'alarm',
  Sleep: 'alarm',
};

/** Reads statuses. Where the zero of programs lies is told from time to time only, and kept in between. */
export class StatusReader {
  private zero: readonly number[] = [0, 0, 0];
  /** The number of the alarm that was told last. */
  alarm: number | null = null;

  /** @returns null where a line is no status */
  read(line: string): PlainStatus | null {
    const [, inside] = /^<([^<>]+)>$/.exec(line) ?? [];
    if (inside === undefined) return null;
    const [word, ...fields] = inside.split('|');
    const [name, part] = word.split(':');
    const state = states[name];
    const values = new Map(fields.map((field) => [field.split(':')[0], numbersAfter(field)]));
    if (!state || [...values.values()].includes(null)) return null;
    const get = (field: string) => values.get(field) ?? undefined;
    this.zero = get('WCO') ?? this.zero;
    const [zeroX, zeroY, zeroZ = 0] = this.zero;
    const [workX, workY, workZ] = get('WPos') ?? [];
    const [machineX, machineY, machineZ] = get('MPos') ?? [];
    const x = workX ?? machineX - zeroX;
    const y = workY ?? machineY - zeroY;
    if (!Number.isFinite(x) || !Number.isFinite(y)) return null;
    const z = workZ ?? machineZ - zeroZ;
    const [feed, power = 0] = get('FS') ?? get('F') ?? [0];
    const [moves, characters] = get('Bf') ?? [];
    return {
      state,
      reason: this.reasonOf(name),
      isSlowing: name === 'Hold' && part === '1',
      x,
      y,
      z: Number.isFinite(z) ? z : null,
      feed: state === 'running' ? feed : 0,
      power: state === 'running' ? power : 0,
      room: characters === undefined ? null : { moves, characters },
    };
  }

  private reasonOf(name: string): string | null {
    if (name === 'Alarm') return this.alarm === null ? 'it is locked' : alarmInWords(this.alarm);
    if (name === 'Door') return 'its door is open';
    if (name === 'Sleep') return 'it sleeps';
    return name === 'Check' ? 'it only checks lines, and moves nothing' : null;
  }
}

/** The numbers of a field such as `MPos:1.0,2.0`; null where they are none. Fields of letters have none. */
function numbersAfter(field: string): readonly number[] | null {
  const [name, said = ''] = field.split(':');
  if (!['MPos', 'WPos', 'WCO', 'FS', 'F', 'Bf'].includes(name)) return [];
  const numbers = said.split(',').map((text) => (text === '' ? Number.NaN : Number(text)));
  return numbers.every(Number.isFinite) ? numbers : null;
}

const alarms: Readonly<Record<number, string>> = {
  1: 'a switch at the end of an axis was touched; home it',
  2: 'a move would have left its bed',
  3: 'it was reset while it moved, and does not know where it is; home it',
  4: 'its probe was not as it must be before it begins',
  5: 'its probe has touched nothing',
  6: 'homing was broken off by a reset',
  7: 'homing was broken off by its door',
  8: 'homing could not leave a switch',
  9: 'homing has found no switch',
};

/** An alarm by its number, in words. */
export function alarmInWords(code: number): string {
  return alarms[code] ?? `it tells of alarm ${code}`;
}

const refusals: Readonly<Record<number, string>> = {
  1: 'a word without a letter',
  2: 'a number that is none',
  3: 'a word of its own that it does not know',
  4: 'a number below 0',
  8: 'it is not idle',
  9: 'it is locked',
  11: 'the line is too long',
  15: 'the move would leave its bed',
  20: 'a word that it does not know',
  21: 'two words that exclude each other',
  22: 'no speed is said',
};

/** Why a line was refused, by the number of that, in words. */
export function refusalInWords(code: number): string {
  return refusals[code] ? `${refusals[code]} (error ${code})` : `error ${code}`;
}
