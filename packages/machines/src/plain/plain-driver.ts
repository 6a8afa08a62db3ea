import {
  type Capabilities,
  type Examination,
  type MachineDriver,
  MachineRefusal,
  type MachineStatus,
  type MachineWord,
  type Program,
  type ProgramEnd,
  refusedAway,
  refusedBusy,
  restingStatus,
} from '../driver.ts';
import { sayWhile } from '../say-while.ts';
import { examinePlain } from './plain-examination.ts';
import { orders, PlainLine, type PlainListener } from './plain-line.ts';
import { type PlainOptions, withDefaults } from './plain-options.ts';
import { PlainRun } from './plain-run.ts';
import { alarmInWords, type PlainStatus, refusalInWords } from './plain-status.ts';
import { PlainStopping } from './plain-stopping.ts';

/** Small controllers are asked ten times a second at most. */
const tickMs = 100;

/** What words of ours are in the plain language. */
const words: Readonly<Partial<Record<MachineWord, string>>> = { home: '$H', clear: '$X' };

/**
 * Runs programs on one machine that speaks the plain language (docs/plain-language.md), over a serial port or the network.
 * Such a machine does not know what a run is, and nothing it is told is checked on the way. So a run whose line breaks, or
 * says something that makes no sense, has ended: it is stopped, and never taken up again.
 */
export class PlainDriver implements MachineDriver {
  readonly capabilities: Capabilities = { words: ['home', 'clear'], watch: false };
  readonly camera = null;
  status: MachineStatus = { ...restingStatus, state: 'away', lid: null };
  oddities = 0;
  private readonly options: Required<PlainOptions>;
  private readonly line: PlainLine;
  private readonly stopping: PlainStopping;
  private running: PlainRun | null = null;
  /** A run ended while the machine could not be reached: what it has left is stopped when it can. */
  private mustStop = false;
  /** The most moves that it has said it would take: as many as it takes when it has none. */
  private mostRoom = 0;
  /** Whether it is reset, so that nothing is left in it of what was sent before this line was opened. */
  private isClean = false;
  private isEnded = false;
  private timer: NodeJS.Timeout | null = null;
  private readonly firstHeard: (() => void)[] = [];

  constructor(options: PlainOptions) {
    this.options = withDefaults(options);
    const listener: PlainListener = {
      status: (status, isFirst) => this.take(status, isFirst),
      answered: (text, refusal) => this.isAnswered(text, refusal),
      alarm: (code) => this.endWhenItStands('refused', alarmInWords(code)),
      greeted: () => this.isGreeted(),
      lost: (why) => this.isLost(why),
      odd: (what) => this.isOdd(what),
    };
    this.line = new PlainLine(this.options, tickMs, listener);
    this.stopping = new PlainStopping(this.line);
  }

  open(): void {
    if (this.isEnded || this.timer) return;
    this.line.open();
    this.timer = setTimeout(() => this.tick(), tickMs);
  }

  async close(withinMs: number): Promise<void> {
    const { line } = this;
    const mayBurn = () => line.heard?.state === 'running' || (this.running !== null && line.heard?.state !== 'held');
    const hold = () => {
      line.say(orders.hold);
      line.say(orders.status);
    };
    await sayWhile(() => line.isOpen && mayBurn(), hold, withinMs);
    this.isEnded = true;
    if (this.timer) clearTimeout(this.timer);
    this.running?.close();
    line.close();
  }

  /** Such a machine does not know its run by an id. */
  async askRun(): Promise<null> {
    if (!this.line.heard) await new Promise<void>((resolve) => this.firstHeard.push(resolve));
    return null;
  }

  // Whether its lid is open is not known here.
  busy(): MachineRefusal | null {
    const { state, reason } = this.status;
    if (state === 'away') return refusedAway(reason);
    if (state !== 'idle' || this.running || this.stopping.isOn || !this.isClean) {
      return refusedBusy(this.status);
    }
    return null;
  }

  async send(program: Program): Promise<ProgramEnd> {
    const busy = this.busy();
    if (busy) throw busy;
    const { windowS, lookAhead } = this.options;
    const running = new PlainRun(program, windowS, lookAhead, this.line, (why) =>
      this.endWhenItStands('broken off', why),
    );
    this.running = running;
    this.setStatus({ ...this.status, runId: program.runId, line: 0, runS: 0 });
    running.pull();
    return running.ended;
  }

  async takeUp(): Promise<ProgramEnd> {
    await this.askRun();
    const { state } = this.status;
    if (state === 'running' || state === 'held') await this.stop();
    const reason = 'Lambent was ended meanwhile, and the machine cannot say how far it came';
    return { status: 'broken off', reason, line: 0, runS: 0 };
  }

  hold(): void {
    this.sayIfThere(orders.hold);
  }

  resume(): void {
    this.sayIfThere(orders.resume);
  }

  stop(): Promise<void> {
    const { line, running } = this;
    if (!line.heard) {
      const away = 'The machine does not answer. Press its own stop, and see that it stands.';
      return Promise.reject(new MachineRefusal('machine-away', away));
    }
    if (running) this.endWhenItStands('stopped', 'stopped by hand');
    return new Promise((resolve, reject) => {
      const late = setTimeout(() => {
        const what = 'The machine has not confirmed that it stands. Press its own stop; Lambent goes on telling it.';
        reject(new MachineRefusal('no-answer', what));
      }, this.options.wordMs);
      this.stopping.until(() => {
        clearTimeout(late);
        resolve();
      });
    });
  }

  async tell(word: MachineWord): Promise<void> {
    const said = words[word];
    if (!said) throw new MachineRefusal('machine-refuses', 'This machine cannot be told that.');
    if (this.running || this.stopping.isOn) {
      throw new MachineRefusal('machine-busy', 'The machine has a run. Wait for its end, or stop it first.');
    }
    const { homeMs, wordMs } = this.options;
    const { refusal } = await this.line.ask(said, word === 'home' ? homeMs : wordMs).catch(this.isLate);
    if (refusal !== null) {
      throw new MachineRefusal('machine-refuses', `The machine refuses: ${refusalInWords(refusal)}.`);
    }
  }

  async examine(): Promise<Examination> {
    // A line that was opened just now is being cleaned of what came before.
    if (!this.running && this.stopping.isOn) await this.stop().catch(() => {});
    const { line, status, mostRoom, options } = this;
    return examinePlain({
      ask: (text) => line.ask(text, options.wordMs).catch(this.isLate),
      heard: line.heard,
      status,
      buffer: options.buffer,
      isFree: !this.running && !this.stopping.isOn,
      mostRoom,
    });
  }

  /** What was not answered may be answered yet, and must not be taken for the answer to something else. */
  private readonly isLate = (error: unknown): never => {
    this.isClean = false;
    throw error;
  };

  private sayIfThere(order: number): void {
    if (!this.line.heard) {
      throw new MachineRefusal('machine-away', 'The machine does not answer. Use its own buttons.');
    }
    this.line.say(order);
  }

  /** Settles how the run ends, and stops the machine until it stands; only then it has ended. */
  private endWhenItStands(status: ProgramEnd['status'], reason: string): void {
    const { running } = this;
    if (!running) return;
    running.ending ??= { status, reason };
    running.close();
    this.stopping.until();
  }

  private end(running: PlainRun, end: Pick<ProgramEnd, 'status' | 'reason'>): void {
    if (this.running !== running) return;
    this.running = null;
    this.setStatus({ ...this.status, runId: null });
    running.end(end);
  }

  private isAnswered(text: string, refusal: number | null): void {
    if (refusal === null) this.running?.isTaken();
    else this.endWhenItStands('refused', `${refusalInWords(refusal)}, at “${text}”`);
  }

  private isGreeted(): void {
    const { line, running, stopping } = this;
    line.forget('The machine was reset before it answered.');
    if (stopping.isOn) stopping.greeted();
    else if (running) this.endWhenItStands('broken off', 'the machine was restarted while it ran');
    else line.say(orders.status);
  }

  private isOdd(what: string): void {
    this.oddities++;
    this.options.odd(what);
    // Nothing tells whether a line has come through as it was sent: where answers are garbled, moves may be.
    this.endWhenItStands('broken off', `the line is disturbed: “${what.slice(0, 40)}” came over it; see to its cable`);
  }

  private take(status: PlainStatus, isFirst: boolean): void {
    const { line, stopping } = this;
    if (isFirst) this.isHeardFirst(status);
    this.mostRoom = Math.max(this.mostRoom, status.room?.moves ?? 0);
    const { running } = this;
    const isDone = running !== null && !running.ending && running.note(status, this.mostRoom);
    const stands = stopping.heard(status);
    if (stands) {
      line.forget('The machine was stopped before it answered.');
      this.isClean = true;
    }
    if (!this.isClean && !stopping.isOn && (status.state === 'idle' || status.state === 'alarm')) stopping.until();
    const { state, reason, x, y, z, feed, power } = status;
    const { progress, program } = running ?? {};
    const runId = program?.runId ?? null;
    this.setStatus({ ...this.status, state, reason, x, y, z, feed, power, runId, ...progress });
    if (stands && running) this.end(running, running.ending ?? { status: 'stopped', reason: null });
    stands?.();
    if (isDone) this.end(running, { status: 'done', reason: null });
    else running?.pull();
  }

  /** The line was opened anew. */
  private isHeardFirst({ state }: PlainStatus): void {
    this.isClean = false;
    this.stopping.begin();
    if (this.mustStop && (state === 'running' || state === 'held')) this.stopping.until();
    this.mustStop = false;
    for (const resolve of this.firstHeard.splice(0)) resolve();
  }

  private isLost(why: string | null): void {
    const { running } = this;
    if (running) {
      this.mustStop = true;
      const cause = why ? `the line to the machine broke: ${why}` : 'the line to the machine broke';
      const left = `it had at most ${this.options.windowS} s still to burn; see that it stands`;
      this.end(running, running.ending ?? { status: 'broken off', reason: `${cause}; ${left}` });
    }
    this.setStatus({ ...this.status, state: 'away', reason: why, feed: 0, power: 0, runId: null });
  }

  private tick(): void {
    if (this.isEnded) return;
    const { line, running, stopping } = this;
    const passed = line.pass();
    if (line.isOpen) {
      stopping.pass(passed);
      line.say(orders.status);
      const owes = line.heard && running && !running.ending ? running.pass(passed, line.heard) : 0;
      if (owes > this.options.owesMs) {
        this.endWhenItStands('broken off', `the machine stands, and has not answered “${line.owed}”: a line was lost`);
      }
    }
    this.timer = setTimeout(() => this.tick(), tickMs);
  }

  private setStatus(next: MachineStatus): void {
    const same = (Object.keys(next) as (keyof MachineStatus)[]).every((key) => next[key] === this.status[key]);
    this.status = next;
    if (!same) this.options.changed(next);
  }
}
