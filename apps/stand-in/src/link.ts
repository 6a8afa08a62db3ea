import { createServer, type Server, type Socket } from 'node:net';
import type { StandInMachine } from './machine.ts';

/** Single bytes that act at once, wherever they stand: ASCII's own enquiry, pause, go on and cancel. */
export const Control = { enquire: 0x05, resume: 0x11, hold: 0x13, stop: 0x18 } as const;

const longestInput = 65536;
/** A line that is not followed by another within so long is taken for the last one that is known for now. */
const quietMs = 1000;

/** Serves the line protocol of `docs/stand-in.md` over TCP. */
export function serve(machine: StandInMachine): {
  server: Server;
  /** Answers what had to wait for room. */
  release: () => void;
  /** Whether a line has come in within the last moments. */
  linesComeIn: () => boolean;
} {
  const clients = new Set<Client>();
  const server = createServer((socket) => {
    const client = new Client(socket, machine);
    clients.add(client);
    socket.on('close', () => clients.delete(client));
    // A client that vanishes is no fault of the machine's; 'close' follows.
    socket.on('error', () => socket.destroy());
  });
  return {
    server,
    release: () => {
      for (const client of clients) client.answerWaiting();
    },
    linesComeIn: () => [...clients].some((client) => performance.now() - client.heardAt < quietMs),
  };
}

class Client {
  private partial = '';
  /** When the last line came in, on the clock of `performance.now`. */
  heardAt = Number.NEGATIVE_INFINITY;
  private readonly lines: string[] = [];

  constructor(
    private readonly socket: Socket,
    private readonly machine: StandInMachine,
  ) {
    socket.setNoDelay(true);
    socket.on('data', (bytes) => this.receive(bytes));
  }

  private receive(bytes: Buffer): void {
    this.machine.hear();
    let text = '';
    for (const byte of bytes) {
      switch (byte) {
        case Control.enquire:
          this.say(`status ${JSON.stringify(this.machine.status())}`);
          break;
        case Control.hold:
          this.machine.hold();
          break;
        case Control.resume:
          this.machine.resume();
          break;
        case Control.stop: {
          // What came before the stop goes with it, also lines that are not looked at yet; words have acted by then.
          const parts = `${this.partial}${text}`.split('\n').slice(0, -1);
          this.partial = text = '';
          for (const part of parts) this.takePart(part);
          this.machine.stop();
          for (const _ of this.lines.splice(0)) this.say('error:stopped');
          break;
        }
        default:
          text += String.fromCharCode(byte);
      }
    }
    this.partial += text;
    const parts = this.partial.split('\n');
    this.partial = parts.pop() ?? '';
    if (this.partial.length > longestInput) {
      this.say('error:the line has no end');
      this.socket.destroy();
      return;
    }
    for (const part of parts) this.takePart(part);
    if (parts.length > 0) this.heardAt = performance.now();
    this.answerWaiting();
  }

  /** Acts on a word, or puts a line with those that wait. */
  private takePart(part: string): void {
    // A word may bear a number, which its answer bears too.
    const [, number = '', word] = /^(#\d{1,9} )?(.*)$/s.exec(part) as RegExpExecArray;
    const answer = this.machine.takeWord(word);
    if (answer !== null) this.say(`word ${number}${answer}`);
    else if (number) this.say(`word ${number}error:“${word.slice(0, 40)}” is no word`);
    else this.lines.push(part.replace(/\r$/, ''));
  }

  answerWaiting(): void {
    const answers: string[] = [];
    while (this.lines.length > 0 && this.machine.hasRoom) {
      answers.push(this.machine.take(this.lines.shift() as string));
    }
    if (answers.length > 0) this.say(answers.join('\n'));
  }

  private say(text: string): void {
    if (!this.socket.destroyed) this.socket.write(`${text}\n`);
  }
}
