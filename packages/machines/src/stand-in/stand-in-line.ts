import { MachineRefusal, refusedAway } from '../driver.ts';
import { LineFraming } from '../framing.ts';
import { Liveness } from '../liveness.ts';
import { tcpWire } from '../wires/tcp-wire.ts';
import type { Wire } from '../wires/wire.ts';
import { WordAnswers } from '../word-answers.ts';
import { type StandInStatus, statusFromJson } from './status.ts';

/** ASCII's own codes: enquiry, go on, pause, cancel. They act at once, wherever they stand. */
export const codes = { enquire: 0x05, resume: 0x11, hold: 0x13, stop: 0x18 } as const;

/** What comes over the line, and what becomes of it. */
export interface LineListener {
  /** The machine can be spoken to; nothing was heard of it yet. */
  connected(): void;
  /** @param isFirst it is the first one since the line was opened */
  status(status: StandInStatus, isFirst: boolean): void;
  /** A line of a program was taken, or was refused with a sentence. */
  answered(sent: string, refusal: string | null): void;
  /** @param why in words, where there is more to say */
  lost(why: string | null): void;
  /** What came that makes no sense. */
  odd(what: string): void;
}

interface LineOptions {
  readonly host: string;
  readonly port: number;
  readonly watchS: number;
  readonly silenceMs: number;
  readonly wordMs: number;
}

const retryMs = 500;
const longestLine = 16 * 1024 * 1024;

/**
 * The line to one stand-in, over TCP: opened again and again, framed, its words numbered and answered within a time.
 * The protocol is in docs/stand-in.md.
 */
export class StandInLine {
  connected = false;
  /** The status as this line has told it; null before it has told any. */
  heard: StandInStatus | null = null;
  private readonly framing = new LineFraming(longestLine);
  private readonly liveness: Liveness;
  private readonly words = new WordAnswers();
  /** Texts of lines that were sent and are not answered, oldest first. */
  private readonly unanswered: string[] = [];
  private readonly firstHeard: (() => void)[] = [];
  private wire: Wire | null = null;
  private closed = false;

  /** @param tickMs how often `pass` is called, in ms */
  constructor(
    private readonly options: LineOptions,
    tickMs: number,
    private readonly listener: LineListener,
  ) {
    this.liveness = new Liveness(2 * tickMs);
  }

  open(): void {
    if (this.closed) return;
    this.wire = tcpWire(
      this.options.host,
      this.options.port,
    )({
      opened: () => this.isConnected(),
      received: (bytes) => this.receive(bytes),
      closed: (why) => this.lost(why),
    });
  }

  close(): void {
    this.closed = true;
    this.wire?.close();
  }

  /** Whether the machine has said how it is since the line was opened. */
  get answers(): boolean {
    return this.heard !== null;
  }

  /** Waits until the machine has said how it is. */
  async firstStatus(): Promise<StandInStatus> {
    if (!this.heard) await new Promise<void>((resolve) => this.firstHeard.push(resolve));
    return this.heard as StandInStatus;
  }

  /** Says one of the codes, where anybody listens. */
  say(code: number): void {
    if (this.connected) this.wire?.write(Uint8Array.of(code));
  }

  /** @throws MachineRefusal where nobody listens, or no answer comes in time */
  async ask(word: string): Promise<string> {
    if (!this.connected) {
      throw refusedAway(null);
    }
    return this.words.ask((number) => this.write(`#${number} ${word}`), this.options.wordMs);
  }

  /** Asks for something that is done or refused. @throws MachineRefusal where it is refused */
  async expectOk(word: string): Promise<void> {
    const answer = await this.ask(word);
    if (answer !== 'ok') throw refusedBy(answer);
  }

  /** Sends a line of a program, whose answer comes later. */
  send(text: string): void {
    this.unanswered.push(text);
    this.write(text);
  }

  /** How many lines were sent and are not answered. */
  get unansweredLines(): number {
    return this.unanswered.length;
  }

  /**
   * Counts the time, and gives a line up on which nothing was heard for too long.
   * @returns the ms that passed while this process was awake; null where the line was given up
   */
  pass(): number | null {
    const passed = this.liveness.tick(performance.now());
    this.words.pass(passed);
    if (!this.connected || this.liveness.silentMs <= this.options.silenceMs) return passed;
    this.wire?.close();
    return null;
  }

  private isConnected(): void {
    this.connected = true;
    this.heard = null;
    this.liveness.heard();
    this.framing.clear();
    this.unanswered.length = 0;
    this.listener.connected();
    this.ask(`watch ${this.options.watchS}`).catch(() => {});
    this.say(codes.enquire);
  }

  private receive(data: Uint8Array): void {
    const { dropped } = this.framing;
    for (const line of this.framing.push(data)) this.takeLine(line);
    if (this.framing.dropped > dropped) this.listener.odd('a line without an end');
  }

  private takeLine(line: string): void {
    if (line.startsWith('status ')) this.takeStatus(line);
    else if (line.startsWith('word #')) this.takeAnswer(line);
    else if (line === 'ok' || line.startsWith('error:')) this.takeTaken(line);
    else this.listener.odd(line.slice(0, 80));
  }

  private takeStatus(line: string): void {
    const status = statusFromJson(line.slice('status '.length));
    if (!status) {
      this.listener.odd(line.slice(0, 80));
      return;
    }
    this.liveness.heard();
    const isFirst = this.heard === null;
    this.heard = status;
    this.listener.status(status, isFirst);
    for (const resolve of this.firstHeard.splice(0)) resolve();
  }

  /** The answer to a word. */
  private takeAnswer(line: string): void {
    const [, number, answer] = /^word #(\d+) (.*)$/s.exec(line) ?? [];
    if (number !== undefined && this.words.answer(Number(number), answer)) this.liveness.heard();
    else this.listener.odd(line.slice(0, 80));
  }

  /** The answer to the oldest line of a program. */
  private takeTaken(line: string): void {
    const sent = this.unanswered.shift();
    if (sent === undefined) {
      this.listener.odd(`an answer to nothing: ${line.slice(0, 60)}`);
      return;
    }
    this.liveness.heard();
    this.listener.answered(sent, line === 'ok' ? null : withoutSign(line));
  }

  private write(line: string): void {
    this.wire?.write(Buffer.from(`${line}\n`, 'latin1'));
  }

  private lost(why: string | null): void {
    this.connected = false;
    this.wire = null;
    this.heard = null;
    this.unanswered.length = 0;
    this.words.breakOff();
    this.listener.lost(why);
    if (!this.closed) setTimeout(() => this.open(), retryMs).unref();
  }
}

/** What a machine said instead of yes. */
export function refusedBy(answer: string): MachineRefusal {
  return new MachineRefusal('machine-refuses', `The machine refuses: ${withoutSign(answer)}.`);
}

function withoutSign(answer: string): string {
  return answer.replace(/^error:/, '');
}
