import { connect, type Socket } from 'node:net';
import {
  type Camera,
  type Capabilities,
  type MachineDriver,
  MachineRefusal,
  type MachineStatus,
  type MachineWord,
  machineWords,
  type Program,
  type ProgramEnd,
} from '../driver.ts';
import { LineFraming } from '../framing.ts';
import { Liveness } from '../liveness.ts';
import { ProgramFeed } from '../program-feed.ts';
import { WordAnswers } from '../word-answers.ts';
import { type StandInStatus, statusFromJson } from './status.ts';

/** ASCII's own codes: enquiry, go on, pause, cancel. They act at once, wherever they stand. */
const bytes = { enquire: 0x05, resume: 0x11, hold: 0x13, stop: 0x18 } as const;

export interface StandInOptions {
  readonly host: string;
  readonly port: number;
  /** Called whenever what is known of the machine has changed. */
  readonly changed?: (status: MachineStatus) => void;
  /** What came that makes no sense, as it is put into the log. */
  readonly odd?: (what: string) => void;
  /** So many seconds of burning may wait in the machine. */
  readonly windowS?: number;
  /** After so many seconds without a word from us the machine holds by itself. */
  readonly watchS?: number;
  /** A machine that has said nothing for so long, in waking time, is away. */
  readonly silenceMs?: number;
  /** So long a word waits for its answer, in waking time. */
  readonly wordMs?: number;
  /** A machine that takes nothing for so long, in waking time, though it has room, takes no more. */
  readonly stuckMs?: number;
}

const tickMs = 60;
/** While the machine has all it may have, its answer is waited for more eagerly. */
const eagerTickMs = 10;
const retryMs = 500;
/** How often a stop is said again until the machine stands. */
const stopAgainMs = 250;
/** Lines sent ahead of their answers. */
const mostUnanswered = 256;
const longestLine = 16 * 1024 * 1024;
/** A hold by the machine's own watch is ended by us, unless nothing was heard for longer than this. */
const resumedAfterMs = 10_000;
const watchSigns = /^nothing was heard for /;

interface Running {
  readonly program: Program;
  readonly resolve: (end: ProgramEnd) => void;
  /** The machine was told to begin it, and has said yes; always so for one that is taken up. */
  begun: boolean;
  feed: ProgramFeed;
  pulling: boolean;
  /** How it ends as soon as the machine stands; null while it goes on. */
  ending: Pick<ProgramEnd, 'status' | 'reason'> | null;
  line: number;
  runS: number;
  /** In waking time, since the machine last took or did anything. */
  stuckMs: number;
}

/** The line to one stand-in, over TCP. The protocol is in docs/stand-in.md. */
export class StandInDriver implements MachineDriver {
  readonly capabilities: Capabilities = { words: machineWords, watch: true };
  readonly camera: Camera = {
    lay: (sheets) => this.expectOk(`sheets ${sheets}`),
    look: () => this.ask('look'),
  };
  status: MachineStatus = {
    state: 'away',
    reason: null,
    x: 0,
    y: 0,
    feed: 0,
    power: 0,
    lid: 'closed',
    line: 0,
    runS: 0,
    runId: null,
  };
  oddities = 0;
  private readonly options: Required<StandInOptions>;
  private readonly framing = new LineFraming(longestLine);
  private readonly liveness = new Liveness(2 * tickMs);
  private readonly words = new WordAnswers();
  /** Texts of lines that were sent and are not answered, oldest first. */
  private readonly unanswered: string[] = [];
  private socket: Socket | null = null;
  private connected = false;
  private closed = false;
  /** The status as this line has told it; null before it has told any. */
  private heard: StandInStatus | null = null;
  private heardAtMs = 0;
  /** A hold by the machine's own watch is left for the operator to end. */
  private operatorIsAsked = true;
  /** Runs that were given up while the machine was away: if it still has one when it comes back, it is stopped. */
  private readonly givenUp = new Set<string>();
  private running: Running | null = null;
  private timer: NodeJS.Timeout | null = null;
  /** The machine is to be stopped and has not said yet that it stands: for how long it was last told so. */
  private stopping: { sinceSaidMs: number; readonly stands: (() => void)[] } | null = null;
  private readonly firstHeard: (() => void)[] = [];

  constructor(options: StandInOptions) {
    this.options = {
      changed: () => {},
      odd: () => {},
      windowS: 2,
      watchS: 2,
      silenceMs: 3000,
      wordMs: 5000,
      stuckMs: 20_000,
      ...options,
    };
  }

  open(): void {
    if (this.closed) return;
    const socket = connect({ host: this.options.host, port: this.options.port });
    this.socket = socket;
    socket.setNoDelay(true);
    socket.on('connect', () => this.isConnected());
    socket.on('data', (data) => this.receive(data));
    socket.on('error', () => socket.destroy());
    socket.on('close', () => this.lost(socket));
    this.timer ??= setTimeout(() => this.tick(), tickMs);
  }

  async close(withinMs: number): Promise<void> {
    const end = performance.now() + withinMs;
    const mayBurn = () => this.heard?.state === 'running' || (this.running !== null && this.heard?.state !== 'held');
    while (this.connected && mayBurn() && performance.now() < end) {
      this.say(bytes.hold);
      this.say(bytes.enquire);
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    this.closed = true;
    if (this.timer) clearTimeout(this.timer);
    this.running?.feed.close();
    this.socket?.destroy();
  }

  async askRun(): Promise<string | null> {
    if (!this.heard) await new Promise<void>((resolve) => this.firstHeard.push(resolve));
    return this.heard?.run?.id ?? null;
  }

  busy(): MachineRefusal | null {
    const { state, reason, lid } = this.status;
    if (state === 'away') {
      return new MachineRefusal('machine-away', 'The machine does not answer. Switch it on, or choose another.');
    }
    if (state !== 'idle' || this.running || this.stopping) {
      const why = state === 'idle' ? 'about to run' : reason ? `${state}, ${reason}` : state;
      return new MachineRefusal('machine-busy', `The machine is not free: it is ${why}.`);
    }
    if (lid === 'open') return new MachineRefusal('lid-open', 'The machine’s lid is open. Close it first.');
    return null;
  }

  async send(program: Program): Promise<ProgramEnd> {
    const busy = this.busy();
    if (busy) throw busy;
    this.operatorIsAsked = false;
    const ended = this.begin(program);
    const running = this.running as Running;
    let answer: string;
    try {
      answer = await this.ask(`run begin ${program.runId} ${program.lines}`);
    } catch (error) {
      // Whether it was begun is found out by asking: the machine's next status says so.
      if (this.running === running) this.endWhenItStands(running, 'broken off', (error as Error).message);
      return ended;
    }
    if (this.running !== running) return ended;
    if (answer !== 'ok') {
      this.running = null;
      running.feed.close();
      this.setStatus({ ...this.status, runId: null });
      throw new MachineRefusal('machine-refuses', `The machine refuses: ${withoutSign(answer)}.`);
    }
    running.begun = true;
    this.pull();
    return ended;
  }

  async takeUp(program: Program): Promise<ProgramEnd> {
    const id = await this.askRun();
    if (id !== program.runId) {
      return { status: 'broken off', reason: 'the machine does not have the run any more', line: 0, runS: 0 };
    }
    this.operatorIsAsked = true;
    const ended = this.begin(program);
    const running = this.running as Running;
    running.begun = true;
    this.rewind(running);
    if (this.heard) this.take(this.heard);
    return ended;
  }

  hold(): void {
    this.sayIfThere(bytes.hold);
  }

  resume(): void {
    this.operatorIsAsked = false;
    this.sayIfThere(bytes.resume);
  }

  stop(): Promise<void> {
    const { running } = this;
    if (!running && !this.connected) {
      return Promise.reject(
        new MachineRefusal('machine-away', 'The machine does not answer. Press its own stop, and see that it stands.'),
      );
    }
    // Told so before, and still away: the record is closed, and the machine stopped if it ever comes back with the run.
    if (running?.ending && !this.connected) {
      this.givenUp.add(running.program.runId);
      this.end(running, { status: 'broken off', reason: 'the machine went away, and was given up by hand' });
      return Promise.resolve();
    }
    if (running) this.endWhenItStands(running, 'stopped', 'stopped by hand');
    return new Promise((resolve, reject) => {
      const late = setTimeout(() => {
        const what = this.connected
          ? 'The machine has not confirmed that it stands. Press its own stop; Lambent goes on telling it.'
          : 'The machine does not answer. Press its own stop; Lambent stops it as soon as it answers. Stop once more to close the record of this run.';
        reject(new MachineRefusal('no-answer', what));
      }, this.options.wordMs);
      this.keepStopping(() => {
        clearTimeout(late);
        resolve();
      });
    });
  }

  async tell(word: MachineWord): Promise<void> {
    await this.expectOk(word);
  }

  private async expectOk(word: string): Promise<void> {
    const answer = await this.ask(word);
    if (answer !== 'ok') {
      throw new MachineRefusal('machine-refuses', `The machine refuses: ${withoutSign(answer)}.`);
    }
  }

  private ask(word: string): Promise<string> {
    if (!this.connected) {
      return Promise.reject(
        new MachineRefusal('machine-away', 'The machine does not answer. Switch it on, or choose another.'),
      );
    }
    return this.words.ask((number) => this.socket?.write(`#${number} ${word}\n`, 'latin1'), this.options.wordMs);
  }

  private say(byte: number): void {
    if (this.connected) this.socket?.write(Uint8Array.of(byte));
  }

  private sayIfThere(byte: number): void {
    if (!this.connected) {
      throw new MachineRefusal('machine-away', 'The machine does not answer. Use its own buttons.');
    }
    this.say(byte);
  }

  private begin(program: Program): Promise<ProgramEnd> {
    this.setStatus({ ...this.status, runId: program.runId });
    return new Promise((resolve) => {
      this.running = {
        program,
        resolve,
        begun: false,
        feed: new ProgramFeed(program, this.options.windowS),
        pulling: false,
        ending: null,
        line: 0,
        runS: 0,
        stuckMs: 0,
      };
    });
  }

  /** Feeds on from what the machine says it has taken. */
  private rewind(running: Running): void {
    const run = this.heard?.run;
    running.feed.close();
    running.feed = new ProgramFeed(running.program, this.options.windowS, run?.taken ?? 0, run?.done ?? 0);
    running.stuckMs = 0;
  }

  /** Sends lines for as long as there is room for them. */
  private pull(): void {
    const { running } = this;
    if (!running || running.pulling || running.ending || !running.begun || !this.connected) return;
    const { feed } = running;
    const mayGoOn = () => this.running === running && running.feed === feed && !running.ending && this.connected;
    running.pulling = true;
    const feeding = async () => {
      while (mayGoOn() && feed.wants && this.unanswered.length < mostUnanswered) {
        const piece = await feed.next();
        if (!piece || !mayGoOn()) break;
        this.unanswered.push(piece.text);
        this.socket?.write(`${piece.text}\n`, 'latin1');
      }
    };
    feeding()
      .catch((error: Error) => {
        if (mayGoOn()) this.endWhenItStands(running, 'broken off', `the program could not be read: ${error.message}`);
      })
      .finally(() => {
        running.pulling = false;
        // What was rewound meanwhile has a feed that nobody has pulled yet.
        if (running.feed !== feed) this.pull();
      });
  }

  /** Settles how a run ends, and stops the machine until it stands; only then it has ended. */
  private endWhenItStands(running: Running, status: ProgramEnd['status'], reason: string): void {
    running.ending ??= { status, reason };
    running.feed.close();
    this.keepStopping();
  }

  private keepStopping(stands?: () => void): void {
    if (!this.stopping) {
      this.stopping = { sinceSaidMs: 0, stands: [] };
      this.say(bytes.stop);
      this.say(bytes.enquire);
    }
    if (stands) this.stopping.stands.push(stands);
  }

  private end(running: Running, end: Pick<ProgramEnd, 'status' | 'reason'>): void {
    if (this.running !== running) return;
    this.running = null;
    running.feed.close();
    this.setStatus({ ...this.status, runId: null });
    running.resolve({ ...end, line: running.line, runS: running.runS });
  }

  private isConnected(): void {
    this.connected = true;
    this.heard = null;
    this.liveness.heard();
    this.framing.clear();
    this.unanswered.length = 0;
    if (this.stopping) this.say(bytes.stop);
    this.words
      .ask((number) => this.socket?.write(`#${number} watch ${this.options.watchS}\n`), this.options.wordMs)
      .catch(() => {});
    this.say(bytes.enquire);
  }

  private receive(data: Uint8Array): void {
    const { dropped } = this.framing;
    for (const line of this.framing.push(data)) this.takeLine(line);
    if (this.framing.dropped > dropped) this.isOdd('a line without an end');
  }

  private isOdd(what: string): void {
    this.oddities++;
    this.options.odd(what);
  }

  private takeLine(line: string): void {
    if (line.startsWith('status ')) {
      const status = statusFromJson(line.slice(7));
      if (!status) {
        this.isOdd(line.slice(0, 80));
        return;
      }
      this.liveness.heard();
      this.take(status);
      return;
    }
    const [, number, answer] = /^word #(\d+) (.*)$/s.exec(line) ?? [];
    if (number !== undefined) {
      if (this.words.answer(Number(number), answer)) this.liveness.heard();
      else this.isOdd(line.slice(0, 80));
      return;
    }
    if (line !== 'ok' && !line.startsWith('error:')) {
      this.isOdd(line.slice(0, 80));
      return;
    }
    const sent = this.unanswered.shift();
    if (sent === undefined) {
      this.isOdd(`an answer to nothing: ${line.slice(0, 60)}`);
      return;
    }
    this.liveness.heard();
    const { running } = this;
    if (line !== 'ok' && running && !running.ending) {
      const what = sent.replace(/^N\d+ /, '');
      this.endWhenItStands(running, 'refused', `${withoutSign(line)}, at “${what}”`);
    } else this.pull();
  }

  private take(status: StandInStatus): void {
    const first = this.heard === null;
    this.heard = status;
    const now = performance.now();
    if (now - this.heardAtMs > resumedAfterMs) this.operatorIsAsked = true;
    this.heardAtMs = now;
    this.judge(status, first);
    const { state, reason, x, y, feed, power, lid, line, runS, run } = status;
    const runId = this.running?.program.runId ?? (run && !run.dropped && !standsIn(state) ? run.id : null);
    this.setStatus({ state, reason, x, y, feed, power, lid, line, runS, runId });
    if (first) for (const resolve of this.firstHeard.splice(0)) resolve();
  }

  /** What a status means for the run that is under way. */
  private judge(status: StandInStatus, first: boolean): void {
    const { state, run, waiting } = status;
    const stands = standsIn(state);
    const { running } = this;
    const has = running !== null && run?.id === running.program.runId;
    if (running && has) {
      if (running.line !== status.line || running.runS !== status.runS || state === 'held') running.stuckMs = 0;
      running.line = status.line;
      running.runS = status.runS;
    }
    // A machine that still has the run, and has not dropped it, was not reached by the stop yet.
    if (this.stopping && stands && !(has && !run.dropped)) {
      const told = this.stopping.stands;
      this.stopping = null;
      if (running) this.end(running, running.ending ?? { status: 'stopped', reason: null });
      for (const resolve of told) resolve();
      return;
    }
    if (run && !run.dropped && !stands && this.givenUp.has(run.id)) this.keepStopping();
    if (!running) return;
    if (!has) {
      // Before it has said yes to a run, the machine tells of the one before.
      if (running.begun)
        this.end(running, running.ending ?? { status: 'broken off', reason: 'the machine was restarted while it ran' });
      return;
    }
    if (first && running.begun && !running.ending) this.rewind(running);
    if (state === 'alarm') this.end(running, running.ending ?? { status: 'refused', reason: status.reason });
    else if (run.dropped && !running.ending) this.end(running, { status: 'stopped', reason: 'stopped at the machine' });
    else if (!running.ending) {
      running.feed.done(run.done);
      const allTaken = running.feed.exhausted && run.taken >= running.feed.given;
      if (allTaken && state === 'idle' && waiting === 0) this.end(running, { status: 'done', reason: null });
      else {
        const byItsWatch = state === 'held' && watchSigns.test(status.reason ?? '');
        if (byItsWatch && !this.operatorIsAsked) this.say(bytes.resume);
        this.pull();
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
    const passed = this.liveness.tick(performance.now());
    this.words.pass(passed);
    if (this.connected) {
      if (this.liveness.silentMs > this.options.silenceMs) this.socket?.destroy();
      else {
        if (this.stopping) {
          this.stopping.sinceSaidMs += passed;
          if (this.stopping.sinceSaidMs >= stopAgainMs) {
            this.stopping.sinceSaidMs = 0;
            this.say(bytes.stop);
          }
        }
        this.say(bytes.enquire);
        this.watchFeeding(passed);
      }
    }
    const { running } = this;
    const eager = running?.begun && !running.ending && this.connected && !running.feed.wants;
    this.timer = setTimeout(() => this.tick(), eager ? eagerTickMs : tickMs);
  }

  /** Gives a run up that the machine takes no more of, though it neither burns nor is held. */
  private watchFeeding(passed: number): void {
    const { running } = this;
    if (!running?.begun || running.ending) return;
    const { stuckMs } = this.options;
    running.stuckMs += passed;
    if (running.stuckMs > stuckMs) {
      this.endWhenItStands(running, 'broken off', `the machine has taken nothing for ${stuckMs / 1000} s`);
    }
  }

  private lost(socket: Socket): void {
    if (this.socket !== socket) return;
    this.connected = false;
    this.socket = null;
    this.heard = null;
    this.unanswered.length = 0;
    this.words.breakOff();
    const runId = this.running?.program.runId ?? null;
    const { line, runS } = this.running ?? this.status;
    const reason = runId ? 'the run goes on when the machine answers again' : null;
    this.setStatus({ ...this.status, state: 'away', reason, feed: 0, power: 0, line, runS, runId });
    if (!this.closed) setTimeout(() => this.open(), retryMs).unref();
  }
}

/** Whether the machine has nothing under way that it could go on with. */
function standsIn(state: MachineStatus['state']): boolean {
  return state === 'idle' || state === 'alarm' || state === 'homing';
}

function withoutSign(answer: string): string {
  return answer.replace(/^error:/, '');
}
