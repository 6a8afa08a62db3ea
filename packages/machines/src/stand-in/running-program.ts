import type { Program, ProgramEnd } from '../driver.ts';
import { ProgramFeed } from '../program-feed.ts';
import { programPieces } from '../program-pieces.ts';
import { linesToSend } from '../unlit.ts';
import type { StandInLine } from './stand-in-line.ts';
import type { StandInStatus } from './status.ts';

/** Lines sent ahead of their answers. */
const mostUnanswered = 256;

/** A program that a machine has, or is to have: what of it was sent, how far it has come, and how it ends. */
export class RunningProgram {
  /** The machine was told to begin it, and has said yes; always so for one that is taken up. */
  begun = false;
  /** How it ends as soon as the machine stands; null while it goes on. */
  ending: Pick<ProgramEnd, 'status' | 'reason'> | null = null;
  readonly ended: Promise<ProgramEnd>;
  private readonly resolve: (end: ProgramEnd) => void;
  private feed: ProgramFeed;
  private pulling = false;
  private over = false;
  private doneLine = 0;
  private doneS = 0;
  /** In waking time, since the machine last took or did anything. */
  private stuckMs = 0;

  /**
   * @param windowS so many seconds of burning may wait in the machine.
   * @param unreadable told why the program could not be read on.
   */
  constructor(
    readonly program: Program,
    private readonly windowS: number,
    private readonly line: StandInLine,
    private readonly unreadable: (why: string) => void,
  ) {
    this.feed = new ProgramFeed(programPieces(linesToSend(program)), windowS);
    let settle: (end: ProgramEnd) => void = () => {};
    this.ended = new Promise((resolve) => {
      settle = resolve;
    });
    this.resolve = settle;
  }

  /** Whether the machine has all that it may have, and its answer is waited for. */
  get isFull(): boolean {
    return this.begun && !this.ending && !this.feed.wants;
  }

  /** How far the machine has come with it. */
  get progress(): { line: number; runS: number } {
    return { line: this.doneLine, runS: this.doneS };
  }

  /** Feeds on from what the machine says it has taken. */
  rewind(run: StandInStatus['run']): void {
    this.feed.close();
    const pieces = programPieces(linesToSend(this.program));
    this.feed = new ProgramFeed(pieces, this.windowS, run?.taken ?? 0, run?.done ?? 0);
    this.stuckMs = 0;
  }

  /** Sends lines for as long as there is room for them. */
  pull(): void {
    if (this.pulling || this.ending || !this.begun || !this.line.connected) return;
    const { feed, line } = this;
    const mayGoOn = () => !this.over && this.feed === feed && !this.ending && line.connected;
    this.pulling = true;
    const feeding = async () => {
      while (mayGoOn() && feed.wants && line.unansweredLines < mostUnanswered) {
        const piece = await feed.next();
        if (!piece || !mayGoOn()) break;
        line.send(`N${piece.line} ${piece.text}`);
      }
    };
    feeding()
      .catch((error: Error) => {
        if (mayGoOn()) this.unreadable(`the program could not be read: ${error.message}`);
      })
      .finally(() => {
        this.pulling = false;
        // What was rewound meanwhile has a feed that nobody has pulled yet.
        if (!this.over && this.feed !== feed) this.pull();
      });
  }

  /** Notes how far the machine has come. */
  note({ state, line, runS }: StandInStatus): void {
    if (this.doneLine !== line || this.doneS !== runS || state === 'held') this.stuckMs = 0;
    this.doneLine = line;
    this.doneS = runS;
  }

  /** Takes in what the machine has taken and done. @returns whether all of it is done */
  isDone({ run, state, waiting }: StandInStatus): boolean {
    if (!run) return false;
    this.feed.done(run.done);
    return this.feed.exhausted && run.taken >= this.feed.given && state === 'idle' && waiting === 0;
  }

  /** Counts time in which the machine takes nothing. @returns whether that was too long */
  isStuck(passedMs: number, mostMs: number): boolean {
    if (!this.begun || this.ending) return false;
    this.stuckMs += passedMs;
    return this.stuckMs > mostMs;
  }

  /** Sends no more of it. */
  close(): void {
    this.feed.close();
  }

  end(end: Pick<ProgramEnd, 'status' | 'reason'>): void {
    this.over = true;
    this.feed.close();
    this.resolve({ ...end, ...this.progress });
  }
}
