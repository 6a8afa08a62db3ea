import type { Program, ProgramEnd } from '../driver.ts';
import { ProgramFeed } from '../program-feed.ts';
import { type Piece, programPieces } from '../program-pieces.ts';
import { linesToSend } from '../unlit.ts';
import type { PlainLine } from './plain-line.ts';
import { plainPieces } from './plain-pieces.ts';
import type { PlainStatus } from './plain-status.ts';

/** What the machine has of a program: sent, and not known to be done. */
interface Under {
  readonly line: number;
  /** Whether it waits among the moves once it was taken. */
  readonly isMove: boolean;
  /** How many answers it still owes. */
  owes: number;
}

/** A program that a machine has, or is to have: what of it was sent, how far it has come, and how it ends. */
export class PlainRun {
  /** How it ends as soon as the machine stands; null while it goes on. */
  ending: Pick<ProgramEnd, 'status' | 'reason'> | null = null;
  readonly ended: Promise<ProgramEnd>;
  private readonly resolve: (end: ProgramEnd) => void;
  private readonly feed: ProgramFeed;
  private readonly under: Under[] = [];
  /** The next piece, where there was no room for it yet. */
  private next: Piece | null = null;
  private pulling = false;
  private isOver = false;
  private doneCount = 0;
  private doneLine = 0;
  private movingMs = 0;
  private heldMs = 0;
  /** When its first line was sent, and when its last one was answered; whether that was a move, which may still be made. */
  private sentAt: number | null = null;
  private answeredAt = 0;
  private endsInMove = false;
  /** In waking time, for how long the machine stands and owes answers. */
  private owingMs = 0;
  private heardLast: PlainStatus | null = null;

  /**
   * @param windowS so many seconds of burning may wait in the machine.
   * @param lookAhead how many moves it may have beside the one that it makes, where it does not tell.
   * @param unreadable told why the program could not be read on.
   */
  constructor(
    readonly program: Program,
    windowS: number,
    private readonly lookAhead: number,
    private readonly line: PlainLine,
    private readonly unreadable: (why: string) => void,
  ) {
    this.feed = new ProgramFeed(plainPieces(programPieces(linesToSend(program))), windowS);
    let settle: (end: ProgramEnd) => void = () => {};
    this.ended = new Promise((resolve) => {
      settle = resolve;
    });
    this.resolve = settle;
  }

  /** How far the machine has come with it. */
  get progress(): { line: number; runS: number } {
    return { line: this.doneLine, runS: this.movingMs / 1000 };
  }

  /** Sends pieces for as long as there is room for them: in the window, and among the machine's characters. */
  pull(): void {
    if (this.pulling || !this.mayGoOn) return;
    this.pulling = true;
    this.sendOn()
      .catch((error: Error) => {
        if (this.mayGoOn) this.unreadable(`the program could not be read: ${error.message}`);
      })
      .finally(() => {
        this.pulling = false;
      });
  }

  private async sendOn(): Promise<void> {
    while (this.mayGoOn) {
      if (!this.next) {
        if (!this.feed.wants) return;
        this.next = await this.feed.next();
        if (!this.next || !this.mayGoOn) return;
      }
      const { line, text } = this.next;
      if (text.length + 1 > this.line.room) return;
      this.next = null;
      const lines = text.split('\n');
      this.endsInMove = /[XYZ]/.test(text);
      this.sentAt ??= performance.now();
      this.under.push({ line, isMove: this.endsInMove, owes: lines.length });
      this.line.send(lines);
    }
  }

  /** A line of it was taken. */
  isTaken(): void {
    const first = this.under.find(({ owes }) => owes > 0);
    if (first) first.owes--;
    this.answeredAt = performance.now();
    this.pull();
  }

  /**
   * Takes in how the machine is.
   * @returns whether all of the program is done
   */
  note({ state, room }: PlainStatus, mostRoom: number): boolean {
    const { under } = this;
    const taken = under.filter(({ owes }) => owes === 0);
    const moves = taken.filter(({ isMove }) => isMove).length;
    // A machine that stands, and owes nothing, has made all its moves. One that does not tell may have as many as it can.
    const waiting =
      state === 'idle' && taken.length === under.length ? 0 : room ? mostRoom - room.moves : this.lookAhead + 1;
    let done = Math.max(0, moves - waiting);
    while (under[0]?.owes === 0 && (!under[0].isMove || done-- > 0)) {
      this.doneLine = (under.shift() as Under).line;
      this.doneCount++;
    }
    this.feed.done(this.doneCount);
    const isDone = this.feed.exhausted && !this.next && under.length === 0 && state === 'idle';
    if (isDone) {
      this.doneLine = this.program.lines;
      const endedAt = this.endsInMove ? performance.now() : this.answeredAt;
      // To the ms, where what was counted goes by how often it is asked.
      if (this.sentAt !== null) this.movingMs = endedAt - this.sentAt - this.heldMs;
    }
    return isDone;
  }

  /**
   * Counts the time.
   * @param heard what the machine said last; said before the last call, it says nothing of the time since
   * @returns for how many ms the machine stands, and owes answers
   */
  pass(ms: number, heard: PlainStatus): number {
    const { state } = heard;
    if (state === 'running') this.movingMs += ms;
    if (state === 'held') this.heldMs += ms;
    if (state !== 'idle' || this.line.owed === null) this.owingMs = 0;
    else if (heard !== this.heardLast) this.owingMs += ms;
    this.heardLast = heard;
    return this.owingMs;
  }

  /** Sends no more of it. */
  close(): void {
    this.feed.close();
  }

  end(end: Pick<ProgramEnd, 'status' | 'reason'>): void {
    this.isOver = true;
    this.feed.close();
    this.resolve({ ...end, ...this.progress });
  }

  private get mayGoOn(): boolean {
    return !this.isOver && !this.ending && this.line.isOpen;
  }
}
