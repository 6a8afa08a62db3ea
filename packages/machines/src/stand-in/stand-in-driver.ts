import {
  type Camera,
  type Capabilities,
  type Examination,
  type MachineDriver,
  MachineRefusal,
  type MachineStatus,
  type MachineWord,
  machineWords,
  type Program,
  type ProgramEnd,
  refusedAway,
  refusedBusy,
} from '../driver.ts';
import { sayWhile } from '../say-while.ts';
import { examineStandIn } from './examination.ts';
import { RunningProgram } from './running-program.ts';
import { codes, type LineListener, refusedBy, StandInLine } from './stand-in-line.ts';
import { type StandInOptions, withDefaults } from './stand-in-options.ts';
import { notHeardYet, nothingDone, type StandInStatus, standsIn } from './status.ts';
import { Stopping } from './stopping.ts';

const tickMs = 60;
/** While the machine has all it may have, its answer is waited for more eagerly. */
const eagerTickMs = 10;
/** A hold by the machine's own watch is ended by us, unless nothing was heard for longer than this. */
const resumedAfterMs = 10_000;
const watchSigns = /^nothing was heard for /;

/** Runs programs on one stand-in, and says what it is doing. */
export class StandInDriver implements MachineDriver {
  readonly capabilities: Capabilities = { words: machineWords, watch: true };
  readonly camera: Camera = {
    lay: (sheets) => this.line.expectOk(`sheets ${sheets}`),
    look: () => this.line.ask('look'),
  };
  status: MachineStatus = notHeardYet;
  oddities = 0;
  private readonly options: Required<StandInOptions>;
  private readonly line: StandInLine;
  private closed = false;
  private heardAtMs = 0;
  /** A hold by the machine's own watch is left for the operator to end. */
  private operatorIsAsked = true;
  /** Runs that were given up while the machine was away: if it still has one when it comes back, it is stopped. */
  private readonly givenUp = new Set<string>();
  private running: RunningProgram | null = null;
  private timer: NodeJS.Timeout | null = null;
  private readonly stopping: Stopping;

  constructor(options: StandInOptions) {
    this.options = withDefaults(options);
    const listener: LineListener = {
      connected: () => this.stopping.sayAgain(),
      status: (status, isFirst) => this.take(status, isFirst),
      answered: (sent, refusal) => this.isAnswered(sent, refusal),
      lost: (why) => this.isLost(why),
      odd: (what) => {
        this.oddities++;
        this.options.odd(what);
      },
    };
    this.line = new StandInLine(this.options, tickMs, listener);
    this.stopping = new Stopping(this.line);
  }

  open(): void {
    if (this.closed) return;
    this.line.open();
    this.timer ??= setTimeout(() => this.tick(), tickMs);
  }

  async close(withinMs: number): Promise<void> {
    const { line } = this;
    const mayBurn = () => line.heard?.state === 'running' || (this.running !== null && line.heard?.state !== 'held');
    const hold = () => {
      line.say(codes.hold);
      line.say(codes.enquire);
    };
    await sayWhile(() => line.connected && mayBurn(), hold, withinMs);
    this.closed = true;
    if (this.timer) clearTimeout(this.timer);
    this.running?.close();
    line.close();
  }

  async askRun(): Promise<string | null> {
    return (await this.line.firstStatus()).run?.id ?? null;
  }

  busy(isUnlit = false): MachineRefusal | null {
    const { state, reason, lid } = this.status;
    if (state === 'away') return refusedAway(reason);
    if (state !== 'idle' || this.running || this.stopping.isOn) {
      return refusedBusy(this.status);
    }
    if (lid === 'open' && !isUnlit) return new MachineRefusal('lid-open', 'The machine’s lid is open. Close it first.');
    return null;
  }

  async send(program: Program): Promise<ProgramEnd> {
    const busy = this.busy(program.isUnlit);
    if (busy) throw busy;
    this.operatorIsAsked = false;
    const running = this.begin(program, nothingDone);
    let answer: string;
    try {
      answer = await this.line.ask(`run begin ${program.runId} ${program.lines}${program.isUnlit ? ' unlit' : ''}`);
    } catch (error) {
      // Whether it was begun is found out by asking: the machine's next status says so.
      if (this.running === running) this.endWhenItStands(running, 'broken off', (error as Error).message);
      return running.ended;
    }
    if (this.running !== running) return running.ended;
    if (answer !== 'ok') {
      this.running = null;
      running.close();
      this.setStatus({ ...this.status, runId: null });
      throw refusedBy(answer);
    }
    running.begun = true;
    running.pull();
    return running.ended;
  }

  async takeUp(program: Program): Promise<ProgramEnd> {
    const id = await this.askRun();
    if (id !== program.runId) {
      return { status: 'broken off', reason: 'the machine does not have the run any more', line: 0, runS: 0 };
    }
    this.operatorIsAsked = true;
    const running = this.begin(program);
    running.begun = true;
    const { heard } = this.line;
    running.rewind(heard?.run ?? null);
    if (heard) this.take(heard, false);
    return running.ended;
  }

  hold(): void {
    this.sayIfThere(codes.hold);
  }

  resume(): void {
    this.operatorIsAsked = false;
    this.sayIfThere(codes.resume);
  }

  stop(): Promise<void> {
    const { running, line } = this;
    // A machine that hangs may still have its line open: what counts is whether it answers.
    if (!running && !line.answers) {
      line.say(codes.stop);
      return Promise.reject(
        new MachineRefusal('machine-away', 'The machine does not answer. Press its own stop, and see that it stands.'),
      );
    }
    // Told so before, and still away: the record is closed, and the machine stopped if it ever comes back with the run.
    if (running?.ending && !line.answers) {
      this.givenUp.add(running.program.runId);
      this.end(running, { status: 'broken off', reason: 'the machine went away, and was given up by hand' });
      return Promise.resolve();
    }
    if (running) this.endWhenItStands(running, 'stopped', 'stopped by hand');
    return new Promise((resolve, reject) => {
      const late = setTimeout(() => {
        const what = line.answers
          ? 'The machine has not confirmed that it stands. Press its own stop; Lambent goes on telling it.'
          : 'The machine does not answer. Press its own stop; Lambent stops it as soon as it answers. Stop once more to close the record of this run.';
        reject(new MachineRefusal('no-answer', what));
      }, this.options.wordMs);
      this.stopping.until(() => {
        clearTimeout(late);
        resolve();
      });
    });
  }

  async tell(word: MachineWord): Promise<void> {
    await this.line.expectOk(word);
  }

  async examine(): Promise<Examination> {
    return examineStandIn(this.status);
  }

  private sayIfThere(code: number): void {
    if (!this.line.connected) {
      throw new MachineRefusal('machine-away', 'The machine does not answer. Use its own buttons.');
    }
    this.line.say(code);
  }

  private begin(program: Program, done: Partial<typeof nothingDone> = {}): RunningProgram {
    this.setStatus({ ...this.status, ...done, runId: program.runId });
    const running: RunningProgram = new RunningProgram(program, this.options.windowS, this.line, (why) =>
      this.endWhenItStands(running, 'broken off', why),
    );
    this.running = running;
    return running;
  }

  /** Settles how a run ends, and stops the machine until it stands; only then it has ended. */
  private endWhenItStands(running: RunningProgram, status: ProgramEnd['status'], reason: string): void {
    running.ending ??= { status, reason };
    running.close();
    this.stopping.until();
  }

  private end(running: RunningProgram, end: Pick<ProgramEnd, 'status' | 'reason'>): void {
    if (this.running !== running) return;
    this.running = null;
    this.setStatus({ ...this.status, runId: null });
    running.end(end);
  }

  private isAnswered(sent: string, refusal: string | null): void {
    const { running } = this;
    if (!running) return;
    if (refusal !== null && !running.ending) {
      this.endWhenItStands(running, 'refused', `${refusal}, at “${sent.replace(/^N\d+ /, '')}”`);
    } else running.pull();
  }

  private take(status: StandInStatus, isFirst: boolean): void {
    const now = performance.now();
    if (now - this.heardAtMs > resumedAfterMs) this.operatorIsAsked = true;
    this.heardAtMs = now;
    this.judge(status, isFirst);
    const { run, waiting, ...said } = status;
    const runId = this.running?.program.runId ?? (run && !run.dropped && !standsIn(said.state) ? run.id : null);
    this.setStatus({ ...said, ...(this.running && run?.id !== runId ? nothingDone : {}), runId });
  }

  /** What a status means for the run that is under way. */
  private judge(status: StandInStatus, isFirst: boolean): void {
    const { state, run } = status;
    const stands = standsIn(state);
    const { running } = this;
    const has = running !== null && run?.id === running.program.runId;
    if (has) running.note(status);
    // A machine that still has the run, and has not dropped it, was not reached by the stop yet.
    if (this.stopping.isOn && stands && !(has && !run.dropped)) {
      const tell = this.stopping.stood();
      if (running) this.end(running, running.ending ?? { status: 'stopped', reason: null });
      tell();
      return;
    }
    if (run && !run.dropped && !stands && this.givenUp.has(run.id)) this.stopping.until();
    if (!running) return;
    if (!has) {
      // Before it has said yes to a run, the machine tells of the one before.
      if (running.begun)
        this.end(running, running.ending ?? { status: 'broken off', reason: 'the machine was restarted while it ran' });
      return;
    }
    if (isFirst && running.begun && !running.ending) running.rewind(run);
    if (state === 'alarm') this.end(running, running.ending ?? { status: 'refused', reason: status.reason });
    else if (run.dropped && !running.ending) this.end(running, { status: 'stopped', reason: 'stopped at the machine' });
    else if (!running.ending) {
      if (running.isDone(status)) this.end(running, { status: 'done', reason: null });
      else {
        const byItsWatch = state === 'held' && watchSigns.test(status.reason ?? '');
        if (byItsWatch && !this.operatorIsAsked) this.line.say(codes.resume);
        running.pull();
      }
    }
  }

  private setStatus(next: MachineStatus): void {
    const same = (Object.keys(next) as (keyof MachineStatus)[]).every((key) => next[key] === this.status[key]);
    this.status = next;
    if (!same) this.options.changed(next);
  }

  private tick(): void {
    if (this.closed) return;
    const { line, running } = this;
    const passed = line.pass();
    if (passed !== null && line.connected) {
      this.stopping.pass(passed);
      line.say(codes.enquire);
      // A run that the machine takes no more of, though it neither burns nor is held, is given up.
      const { stuckMs } = this.options;
      if (running?.isStuck(passed, stuckMs)) {
        this.endWhenItStands(running, 'broken off', `the machine has taken nothing for ${stuckMs / 1000} s`);
      }
    }
    const eager = line.connected && (running?.isFull ?? false);
    this.timer = setTimeout(() => this.tick(), eager ? eagerTickMs : tickMs);
  }

  private isLost(why: string | null): void {
    const runId = this.running?.program.runId ?? null;
    const { line, runS } = this.running?.progress ?? this.status;
    const reason = runId ? 'the run goes on when the machine answers again' : why;
    this.setStatus({ ...this.status, state: 'away', reason, feed: 0, power: 0, line, runS, runId });
  }
}
