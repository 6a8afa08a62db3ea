import { MachineRefusal, refusedAway, refusedLate } from '../driver.ts';
import { LineFraming } from '../framing.ts';
import { Liveness } from '../liveness.ts';
import type { Wire } from '../wires/wire.ts';
import type { PlainOptions } from './plain-options.ts';
import { type PlainStatus, StatusReader } from './plain-status.ts';

/** Orders of one byte, which act at once and take no room among the lines. */
export const orders = { status: 0x3f, hold: 0x21, resume: 0x7e, reset: 0x18 } as const;

/** What comes over the line, and what becomes of it. */
export interface PlainListener {
  /** @param isFirst it is the first one since the line was opened */
  status(status: PlainStatus, isFirst: boolean): void;
  /** A line was taken, or was refused by a number. */
  answered(text: string, refusal: number | null): void;
  alarm(code: number): void;
  /** The machine has begun anew: what it had is gone. */
  greeted(): void;
  /** @param why in words, where there is more to say */
  lost(why: string | null): void;
  /** What came that makes no sense. */
  odd(what: string): void;
}

interface Sent {
  readonly text: string;
  /** Its characters, with its end. */
  readonly length: number;
  /** Where somebody waits for its answer: what came before it. */
  readonly resolve?: (answer: PlainAnswer) => void;
  readonly reject?: (error: MachineRefusal) => void;
  leftMs: number;
}

/** What a line was answered. */
export interface PlainAnswer {
  /** Null where it was taken. */
  readonly refusal: number | null;
  /** What was said before the answer, such as `$30=1000`. */
  readonly said: readonly string[];
}

const longestLine = 4096;
/** No machine takes fewer characters: one that tells so has something in it still. */
const leastBuffer = 64;
/** So much of what a machine says of itself before an answer is kept. */
const mostSaid = 200;
const greetingSign = /\['\$' for help\]$/;

/**
 * The line to one machine that speaks the plain language: opened again and again, framed, with the characters counted
 * that the machine has and has not answered. (Flow control by counting characters.)
 */
export class PlainLine {
  isOpen = false;
  /** The status as this line has told it; null before it has told any. */
  heard: PlainStatus | null = null;
  /** How many bytes came since something made sense. */
  private unread = 0;
  private wire: Wire | null = null;
  private isEnded = false;
  private readonly framing = new LineFraming(longestLine);
  private readonly liveness: Liveness;
  private reader = new StatusReader();
  private readonly unanswered: Sent[] = [];
  private said: string[] = [];
  /** How many characters it has said it takes while it had none; null where it does not tell. */
  private toldRoom: number | null = null;

  /** @param tickMs how often `pass` is called, in ms */
  constructor(
    private readonly options: Required<PlainOptions>,
    tickMs: number,
    private readonly listener: PlainListener,
  ) {
    this.liveness = new Liveness(2 * tickMs);
  }

  open(): void {
    if (this.isEnded) return;
    this.liveness.heard();
    this.wire = this.options.connect({
      opened: () => this.isOpened(),
      received: (bytes) => this.receive(bytes),
      closed: (why) => this.isLost(why),
    });
  }

  close(): void {
    this.isEnded = true;
    this.wire?.close();
  }

  /** Gives one of the orders, where anybody listens. */
  say(order: number): void {
    if (this.isOpen) this.wire?.write(Uint8Array.of(order));
  }

  /** Sends lines, whose answers come later. */
  send(lines: readonly string[]): void {
    for (const text of lines) this.unanswered.push({ text, length: text.length + 1, leftMs: Infinity });
    this.wire?.write(Buffer.from(`${lines.join('\n')}\n`, 'latin1'));
  }

  /**
   * Sends a line, and waits for its answer.
   * @param withinMs in waking time
   * @throws MachineRefusal where nobody listens, no answer comes in time, or the line breaks
   */
  ask(text: string, withinMs: number): Promise<PlainAnswer> {
    if (!this.isOpen || !this.heard) return Promise.reject(refusedAway(null));
    return new Promise((resolve, reject) => {
      this.unanswered.push({ text, length: text.length + 1, resolve, reject, leftMs: withinMs });
      this.wire?.write(Buffer.from(`${text}\n`, 'latin1'));
    });
  }

  /** How many characters more the machine takes. */
  get room(): number {
    return (
      Math.min(this.options.buffer, this.toldRoom ?? Infinity) -
      this.unanswered.reduce((sum, { length }) => sum + length, 0)
    );
  }

  /** The oldest line that is not answered; null where all are. */
  get owed(): string | null {
    return this.unanswered[0]?.text ?? null;
  }

  /** What was sent has no answer to come: the machine was reset, or begins anew. */
  forget(why: string): void {
    for (const { reject } of this.unanswered.splice(0)) reject?.(new MachineRefusal('no-answer', why));
  }

  /**
   * Counts the time, and gives a line up on which nothing was heard for too long.
   * @returns the ms that passed while this process was awake
   */
  pass(): number {
    const passed = this.liveness.tick(performance.now());
    for (const sent of [...this.unanswered]) {
      sent.leftMs -= passed;
      if (sent.leftMs > 0 || !sent.reject) continue;
      this.unanswered.splice(this.unanswered.indexOf(sent), 1);
      sent.reject(refusedLate());
    }
    // While it goes home, it may have no time to say anything.
    const isAsked = this.unanswered.some(({ reject }) => reject);
    if (this.isOpen && !isAsked && this.liveness.silentMs > this.options.silenceMs) this.wire?.close();
    return passed;
  }

  private isOpened(): void {
    this.isOpen = true;
    this.heard = null;
    this.unread = 0;
    this.reader = new StatusReader();
    this.liveness.heard();
    this.framing.clear();
    this.unanswered.length = 0;
    this.said = [];
    this.say(orders.status);
  }

  private receive(bytes: Uint8Array): void {
    this.unread += bytes.length;
    const { dropped } = this.framing;
    for (const line of this.framing.push(bytes)) this.takeLine(line);
    if (this.framing.dropped > dropped) this.isOdd('a line without an end');
  }

  private takeLine(line: string): void {
    if (line === '') return;
    const status = this.reader.read(line);
    const [, kind, code] = /^(error|ALARM):(\d{1,4})$/.exec(line) ?? [];
    if (status) this.takeStatus(status);
    else if (line === 'ok' || kind === 'error') this.takeAnswer(kind === 'error' ? Number(code) : null, line);
    else if (kind === 'ALARM') {
      this.makesSense();
      this.reader.alarm = Number(code);
      this.listener.alarm(Number(code));
    } else if (greetingSign.test(line)) {
      this.makesSense();
      this.said = [];
      this.listener.greeted();
    } else if (/^(\$[\w$]+=|\[[^\]]*\]$)/.test(line)) this.said = [...this.said.slice(-mostSaid), line];
    else this.isOdd(line.slice(0, 80));
  }

  private takeStatus(status: PlainStatus): void {
    this.makesSense();
    if (status.state !== 'alarm') this.reader.alarm = null;
    const isFirst = this.heard === null;
    this.heard = status;
    const free = status.room?.characters ?? 0;
    if (free >= leastBuffer && status.state === 'idle' && this.owed === null) this.toldRoom = free;
    this.listener.status(status, isFirst);
  }

  private takeAnswer(refusal: number | null, line: string): void {
    const sent = this.unanswered.shift();
    const { said } = this;
    this.said = [];
    if (!sent) {
      this.isOdd(`an answer to nothing: ${line}`);
      return;
    }
    this.makesSense();
    if (sent.resolve) sent.resolve({ refusal, said });
    else this.listener.answered(sent.text, refusal);
  }

  private makesSense(): void {
    this.liveness.heard();
    this.unread = 0;
  }

  private isOdd(what: string): void {
    this.listener.odd(what.replace(/[^ -~]/g, '·'));
  }

  private isLost(why: string | null): void {
    const { unread } = this;
    this.isOpen = false;
    this.wire = null;
    this.heard = null;
    this.forget('The machine went away before it answered.');
    const told =
      why ?? (unread > 0 ? 'what comes over the line makes no sense: see whether its speed (baud) is right' : null);
    this.listener.lost(told);
    if (!this.isEnded) setTimeout(() => this.open(), this.options.retryMs).unref();
  }
}
