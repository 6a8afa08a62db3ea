import { connect, type Socket } from 'node:net';
import type { MachineCommand, MachineState } from '@lambent/contracts';
import { PlainError } from '../common/plain-error.ts';

/** How a program came to its end. */
export interface ProgramEnd {
  readonly status: 'done' | 'stopped' | 'refused' | 'broken off';
  readonly reason: string | null;
}

const enquire = Buffer.from([0x05]);
const bytes: Partial<Record<MachineCommand, Buffer>> = {
  resume: Buffer.from([0x11]),
  hold: Buffer.from([0x13]),
  stop: Buffer.from([0x18]),
};
const words: Partial<Record<MachineCommand, string>> = {
  home: 'home',
  clear: 'clear',
  'open-lid': 'lid open',
  'close-lid': 'lid close',
};

const enquiryMs = 60;
const retryMs = 500;
/** A machine that has said nothing for this long is away. */
const silenceMs = 3000;
/** Lines sent ahead of their answers. */
const mostUnanswered = 256;

interface Program {
  readonly lines: AsyncIterator<string>;
  readonly finish: (end: ProgramEnd) => void;
  ended: boolean;
  sentAll: boolean;
  pulling: boolean;
}

/**
 * The line to one machine: keeps it open, asks for its state, sends programs line by line.
 * The protocol is in docs/stand-in.md.
 */
export class MachineLink {
  state: MachineState;
  private socket: Socket | null = null;
  private connected = false;
  private closed = false;
  private partial = '';
  private heardAt = 0;
  /** What each answer to come belongs to, oldest first: to program lines, and to words. */
  private readonly unanswered: ((answer: string) => void)[] = [];
  private readonly unansweredWords: ((answer: string) => void)[] = [];
  private program: Program | null = null;
  private timer: NodeJS.Timeout | null = null;

  constructor(
    readonly machineId: string,
    private readonly address: { host: string; port: number },
    private readonly changed: (state: MachineState) => void,
  ) {
    this.state = {
      machineId,
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
  }

  open(): void {
    if (this.closed) return;
    const socket = connect(this.address);
    this.socket = socket;
    socket.setNoDelay(true);
    socket.on('connect', () => {
      this.connected = true;
      this.heardAt = Date.now();
      this.partial = '';
    });
    socket.on('data', (data) => this.receive(data.toString('latin1')));
    socket.on('error', () => socket.destroy());
    socket.on('close', () => this.lost());
    this.timer ??= setInterval(() => this.enquire(), enquiryMs);
  }

  close(): void {
    this.closed = true;
    if (this.timer) clearInterval(this.timer);
    this.socket?.destroy();
  }

  /** @throws PlainError 409 when the machine is away or refuses */
  async command(command: MachineCommand): Promise<void> {
    const socket = this.socket;
    if (!socket || !this.connected) throw new PlainError(409, 'machine-away', 'The machine does not answer.');
    const byte = bytes[command];
    if (byte) {
      if (command === 'stop') this.endProgram({ status: 'stopped', reason: 'stopped by hand' });
      socket.write(byte);
      return;
    }
    const answer = await this.askWord(words[command] as string);
    if (answer !== 'ok') {
      throw new PlainError(409, 'machine-refuses', `The machine refuses: ${answer.replace(/^error:/, '')}.`);
    }
  }

  /**
   * Tells a stand-in what lies on its bed.
   * @throws PlainError 409 when it refuses
   */
  async lay(word: string): Promise<void> {
    const answer = await this.askWord(word);
    if (answer !== 'ok') {
      throw new PlainError(409, 'machine-refuses', `The machine refuses: ${answer.replace(/^error:/, '')}.`);
    }
  }

  /** What a stand-in shows of its bed, as JSON; `null` where nothing is burnt. */
  look(): Promise<string> {
    return this.askWord('look');
  }

  /**
   * Sends a program and waits until the machine has made its last move.
   * @throws PlainError 409 when the machine is away or not idle
   */
  send(runId: string, lines: AsyncIterable<string>): Promise<ProgramEnd> {
    this.expectIdle();
    this.state = { ...this.state, runId };
    return new Promise((resolve) => {
      this.program = {
        lines: lines[Symbol.asyncIterator](),
        finish: resolve,
        ended: false,
        sentAll: false,
        pulling: false,
      };
      void this.askWord('run begin').then(() => this.pull());
    });
  }

  /** @throws PlainError 409 when the machine cannot take a program now, saying why */
  expectIdle(): void {
    const { state, reason } = this.state;
    if (state === 'away')
      throw new PlainError(409, 'machine-away', 'The machine does not answer. Switch it on, or choose another.');
    if (state !== 'idle' || this.program) {
      const why = reason ? `${state}, ${reason}` : state;
      throw new PlainError(409, 'machine-busy', `The machine is not free: it is ${why}.`);
    }
    if (this.state.lid === 'open') throw new PlainError(409, 'lid-open', 'The machine’s lid is open. Close it first.');
  }

  private ask(line: string): Promise<string> {
    return this.write(line, this.unanswered);
  }

  private askWord(word: string): Promise<string> {
    return this.write(word, this.unansweredWords);
  }

  private write(line: string, waiting: ((answer: string) => void)[]): Promise<string> {
    return new Promise((resolve) => {
      waiting.push(resolve);
      this.socket?.write(`${line}\n`, 'latin1');
    });
  }

  /** Sends lines for as long as few enough are unanswered. */
  private async pull(): Promise<void> {
    const { program } = this;
    if (!program || program.pulling) return;
    program.pulling = true;
    try {
      while (!program.ended && !program.sentAll && this.unanswered.length < mostUnanswered) {
        const { value, done } = await program.lines.next();
        if (program.ended) break;
        if (done) {
          program.sentAll = true;
          break;
        }
        void this.ask(value).then((answer) => this.answered(program, value, answer));
      }
    } catch (error) {
      this.socket?.write(bytes.stop as Buffer);
      this.endProgram({ status: 'broken off', reason: `the program could not be read: ${(error as Error).message}` });
    } finally {
      program.pulling = false;
    }
  }

  private answered(program: Program, line: string, answer: string): void {
    if (program.ended) return;
    if (answer === 'ok') {
      if (this.unanswered.length < mostUnanswered / 2) void this.pull();
      return;
    }
    this.socket?.write(bytes.stop as Buffer);
    this.endProgram({ status: 'refused', reason: `${answer.replace(/^error:/, '')}, at “${line}”` });
  }

  private endProgram(end: ProgramEnd): void {
    const { program } = this;
    if (!program || program.ended) return;
    program.ended = true;
    this.program = null;
    void program.lines.return?.();
    program.finish(end);
    this.setState({ ...this.state, runId: null });
  }

  private receive(text: string): void {
    this.heardAt = Date.now();
    const parts = (this.partial + text).split('\n');
    this.partial = parts.pop() ?? '';
    for (const part of parts) {
      if (part.startsWith('status ')) this.takeStatus(part.slice(7));
      else if (part.startsWith('word ')) this.unansweredWords.shift()?.(part.slice(5));
      else this.unanswered.shift()?.(part);
    }
  }

  private takeStatus(json: string): void {
    const status = JSON.parse(json) as Omit<MachineState, 'machineId' | 'runId'> & { waiting: number };
    const { waiting, state, reason, x, y, feed, power, lid, line, runS } = status;
    const { machineId, runId } = this.state;
    this.setState({ machineId, runId, state, reason, x, y, feed, power, lid, line, runS });
    const { program } = this;
    if (!program) return;
    if (state === 'alarm') this.endProgram({ status: 'refused', reason });
    else if (state === 'idle' && waiting === 0 && program.sentAll && this.unanswered.length === 0) {
      this.endProgram({ status: 'done', reason: null });
    }
  }

  private setState(next: MachineState): void {
    const same = (Object.keys(next) as (keyof MachineState)[]).every((key) => next[key] === this.state[key]);
    this.state = next;
    if (!same) this.changed(next);
  }

  private enquire(): void {
    if (!this.connected) return;
    if (Date.now() - this.heardAt > silenceMs) this.socket?.destroy();
    else this.socket?.write(enquire);
  }

  private lost(): void {
    this.connected = false;
    this.socket = null;
    const waiting = [...this.unanswered.splice(0), ...this.unansweredWords.splice(0)];
    for (const answer of waiting) answer('error:the machine went away');
    this.endProgram({ status: 'broken off', reason: 'the machine went away' });
    this.setState({ ...this.state, state: 'away', reason: null, feed: 0, power: 0, runId: null });
    if (!this.closed) setTimeout(() => this.open(), retryMs).unref();
  }
}
