/** What a driver knows of its machine; places in mm in the machine's own frame. */
export interface MachineStatus {
  /** `away` while it does not answer. */
  readonly state: 'away' | 'idle' | 'homing' | 'running' | 'held' | 'alarm';
  /** Why it is held, in alarm or away, where there is more to say. */
  readonly reason: string | null;
  readonly x: number;
  readonly y: number;
  /** mm/min. */
  readonly feed: number;
  /** On the machine's power scale; 0 while the beam is off. */
  readonly power: number;
  /** Null where the machine does not tell. */
  readonly lid: 'open' | 'closed' | null;
  /** The last program line whose move is done. */
  readonly line: number;
  /** How far above the stock its focus is, in mm; null where it does not tell. */
  readonly z: number | null;
  /** What blows at its beam; null where it does not tell. */
  readonly air: 'off' | 'low' | 'high' | null;
  /** Whether its red pointer shines; null where it has none, or does not tell. */
  readonly pointer: boolean | null;
  /** Machine seconds spent moving in this run. */
  readonly runS: number;
  /** The run that the machine has now, begun and not ended; null while it has none. */
  readonly runId: string | null;
}

/** A machine that stands at its zero, with nothing to do. */
export const restingStatus: MachineStatus = {
  state: 'idle',
  reason: null,
  x: 0,
  y: 0,
  feed: 0,
  power: 0,
  lid: 'closed',
  line: 0,
  z: null,
  air: null,
  pointer: null,
  runS: 0,
  runId: null,
};

/** One line of a program, and how many seconds the machine is planned to take for it. */
export interface ProgramLine {
  readonly text: string;
  readonly seconds: number;
}

export interface Program {
  /** By which the machine and the record know the run. */
  readonly runId: string;
  /** How many lines it has. */
  readonly lines: number;
  /** It moves the head, and must not light the beam: a line that would do so is not sent. */
  readonly isUnlit?: boolean;
  /** Its lines from the first on; may be asked for again. */
  open(): AsyncIterable<ProgramLine>;
}

/** How a run came to its end, and how far it had come, as the machine said last. */
export interface ProgramEnd {
  readonly status: 'done' | 'stopped' | 'refused' | 'broken off';
  readonly reason: string | null;
  readonly line: number;
  readonly runS: number;
}

/** What a machine can be told besides hold, resume and stop. */
export const machineWords = ['home', 'clear', 'lid open', 'lid close', 'pointer on', 'pointer off'] as const;
export type MachineWord = (typeof machineWords)[number];

export interface Capabilities {
  readonly words: readonly MachineWord[];
  /** Whether it holds by itself when it hears nothing. */
  readonly watch: boolean;
}

/** Shows what lies on the bed; one that has no eyes is told first. */
export interface Camera {
  /** @param sheets what lies there, as JSON @throws MachineRefusal when it refuses */
  lay(sheets: string): Promise<void>;
  /** The bed as JSON; `null` where nothing is burnt. @throws MachineRefusal when it does not answer */
  look(): Promise<string>;
}

/** What was found out in one step about a machine. */
export interface ExaminedStep {
  readonly level: 'good' | 'warns' | 'fails';
  /** A sentence for the operator. */
  readonly message: string;
}

export interface Examination {
  readonly steps: readonly ExaminedStep[];
  /** The figures that the machine tells of itself; lengths in mm, speeds in mm/s, accelerations in mm/s². */
  readonly figures: ToldFigures;
}

/** What a machine may tell of itself. */
export interface ToldFigures {
  readonly powerScale?: number;
  readonly travelSpeed?: number;
  readonly acceleration?: number;
  readonly accelerationY?: number;
  readonly bedWidth?: number;
  readonly bedHeight?: number;
  readonly lookAhead?: number;
}

/** The machine does not take what it is told; the message is a sentence for the operator. */
export class MachineRefusal extends Error {
  constructor(
    readonly code: 'machine-away' | 'machine-busy' | 'machine-refuses' | 'lid-open' | 'no-answer',
    message: string,
  ) {
    super(message);
  }
}

/** What cannot be done because a machine does not answer. @param reason why not, where that is known */
export function refusedAway(reason: string | null): MachineRefusal {
  const what = reason ? `The machine does not answer: ${reason}.` : 'The machine does not answer.';
  return new MachineRefusal('machine-away', `${what} Switch it on, or choose another.`);
}

/** What cannot be done because a machine has something else to do. */
export function refusedBusy({ state, reason }: Pick<MachineStatus, 'state' | 'reason'>): MachineRefusal {
  const why = state === 'idle' ? 'about to run' : reason ? `${state}, ${reason}` : state;
  return new MachineRefusal('machine-busy', `The machine is not free: it is ${why}.`);
}

/** What a machine was told, and has not answered. */
export function refusedLate(): MachineRefusal {
  return new MachineRefusal('no-answer', 'The machine has not answered in time. See to it, and try again.');
}

/**
 * The line to one machine. It is judged only after it was heard; while it may burn, it is never given up: a line that
 * breaks is taken up again, and what the machine is doing is asked, not assumed.
 */
export interface MachineDriver {
  readonly capabilities: Capabilities;
  /** Null where it has none. */
  readonly camera: Camera | null;
  /** As it was heard last. */
  readonly status: MachineStatus;
  /** How much came that made no sense. */
  readonly oddities: number;
  /** Opens the line, and opens it again whenever it breaks, until it is closed. */
  open(): void;
  /**
   * Holds what runs, waits until it stands, and closes the line.
   * @param withinMs the longest that it waits
   */
  close(withinMs: number): Promise<void>;
  /** The run that the machine has, by its id, once it was heard; null where it has none. Waits while it is away. */
  askRun(): Promise<string | null>;
  /**
   * Sends a program and resolves when the machine has made its last move, or has dropped it and stands.
   * @throws MachineRefusal when the machine cannot take it now; it is not begun then
   */
  send(program: Program): Promise<ProgramEnd>;
  /**
   * Takes up a run that the machine has already: feeds it on from where the machine says it is.
   * Resolves as `send` does; `broken off` where the machine does not have it any more.
   */
  takeUp(program: Program): Promise<ProgramEnd>;
  /** @throws MachineRefusal when it is away */
  hold(): void;
  /** @throws MachineRefusal when it is away */
  resume(): void;
  /**
   * Drops what runs, and keeps saying so until the machine stands.
   * @throws MachineRefusal when it has not confirmed that it stands after some seconds; the driver goes on asking
   */
  stop(): Promise<void>;
  /** @throws MachineRefusal when it is away, refuses, or does not answer in time */
  tell(word: MachineWord): Promise<void>;
  /** Why it cannot take a program now; null where it can. An unlit one may be taken with the lid open. */
  busy(isUnlit?: boolean): MachineRefusal | null;
  /** What can be found out about the machine and the line to it, step by step. Nothing moves and nothing burns. */
  examine(): Promise<Examination>;
}
