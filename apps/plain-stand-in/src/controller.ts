import { arcWays } from './arc-ways.ts';
import { figureLines } from './figure-lines.ts';
import { type Figures, Head, isOnBed, type Task } from './head.ts';
import { alarms, Fault, faults, type Words, wordsOf } from './words.ts';

export interface Build extends Figures {
  /** How many characters of lines it takes before it has answered. */
  readonly buffer: number;
  /** How many machine seconds it needs to read a line. */
  readonly lineS: number;
  /** How many machine seconds each character is on its way. */
  readonly characterS: number;
  /** How far its straight ways may be off an arc, in mm; 0 where it takes none. */
  readonly arcsWithin: number;
  readonly powerScale: number;
  /** Whether a status says how much room there is. */
  readonly tellsRoom: boolean;
  /** It is locked when it is switched on, until it was told to go home, or to unlock. */
  readonly startsLocked: boolean;
}

export type State = 'Idle' | 'Run' | 'Hold:0' | 'Home' | 'Alarm';

const homingS = 1;
const greeting = "Lambent plain stand-in 1 ['$' for help]";

/**
 * A small motion controller: a buffer of characters, a reader that takes its time for each line, a head that knows few
 * moves ahead. Orders of one byte act at once. Knows nothing of sockets and ports.
 */
export class Controller {
  private readonly head: Head;
  private state: State = 'Idle';
  /** Characters that have come, and are not read. */
  private buffered = '';
  /** Characters that are on their way, and in how many seconds the next one is there. */
  private onItsWay = '';
  private nextIn = 0;
  /** The line that is being read, and for how long still. */
  private reading: { readonly line: string; leftS: number } | null = null;
  private statuses = 0;
  private homingLeft = 0;
  private motionWord = 0;
  /** What is still to be made of the line that is read. */
  private ways: Task[] = [];
  private feed = 0;
  private power = 0;
  private laser: 'off' | 'steady' | 'follows' = 'off';

  /** @param say sends a line */
  constructor(
    private readonly build: Build,
    private readonly say: (line: string) => void,
  ) {
    this.head = new Head(build);
    this.switchOn();
  }

  /** As after the power came back: whatever it had is gone. */
  switchOn(): void {
    this.forget();
    this.head.goHome();
    this.state = this.build.startsLocked ? 'Alarm' : 'Idle';
    this.say('');
    this.say(greeting);
    if (this.state === 'Alarm') this.say('[MSG:locked]');
  }

  /** Takes bytes: orders at once, the rest as far as there is room. What does not fit is lost, as on a real one. */
  take(bytes: Uint8Array): void {
    for (const byte of bytes) {
      if (byte === 0x3f) this.say(this.status());
      else if (byte === 0x21) this.hold();
      else if (byte === 0x7e) this.resume();
      else if (byte === 0x18) this.reset();
      else if (byte !== 13) this.arrive(String.fromCharCode(byte));
    }
  }

  /** A character comes over, as soon as those before it have. */
  private arrive(character: string): void {
    const { characterS } = this.build;
    if (characterS === 0) this.buffer(character);
    else {
      if (this.onItsWay === '') this.nextIn = characterS;
      this.onItsWay += character;
    }
  }

  private buffer(character: string): void {
    if (this.buffered.length + (this.reading?.line.length ?? 0) < this.build.buffer) this.buffered += character;
  }

  /** What burns now, on the scale of S: 0 where the beam is off. */
  get beam(): number {
    return this.state === 'Run' && this.laser !== 'off' ? this.head.power : 0;
  }

  /** Lets machine time pass. */
  advance(seconds: number): void {
    let left = seconds;
    while (left > 1e-12) {
      this.read();
      let step = this.reading && this.reading.leftS > 0 ? Math.min(left, this.reading.leftS) : left;
      if (this.onItsWay !== '') step = Math.min(step, this.nextIn);
      if (this.state === 'Home') step = this.home(step);
      else if (this.state === 'Run') step = this.head.pass(step);
      if (this.reading) this.reading.leftS -= step;
      this.bring(step);
      left -= step;
      if (this.state === 'Run' && this.head.isStill) this.state = 'Idle';
    }
    this.read();
  }

  private bring(step: number): void {
    if (this.onItsWay === '') return;
    this.nextIn -= step;
    while (this.onItsWay !== '' && this.nextIn <= 1e-12) {
      this.buffer(this.onItsWay[0]);
      this.onItsWay = this.onItsWay.slice(1);
      this.nextIn += this.build.characterS;
    }
  }

  /** A switch at the end of an axis was touched, or a door fell open: everything is dropped. */
  raiseAlarm(code: number = alarms.limit): void {
    this.forget();
    this.head.drop();
    this.state = 'Alarm';
    this.say(`ALARM:${code}`);
  }

  private home(step: number): number {
    const used = Math.min(step, this.homingLeft);
    this.homingLeft -= used;
    if (this.homingLeft > 1e-12) return used;
    this.head.goHome();
    this.state = 'Idle';
    this.say('ok');
    return used;
  }

  /** Reads lines for as long as there are any, and what they ask for can be done. */
  private read(): void {
    for (;;) {
      if (!this.reading) {
        const end = this.buffered.indexOf('\n');
        if (end < 0 || this.state === 'Home') return;
        this.reading = { line: this.buffered.slice(0, end + 1), leftS: this.build.lineS };
        this.buffered = this.buffered.slice(end + 1);
      }
      if (this.reading.leftS > 1e-12) return;
      const { reading } = this;
      // What is answered takes no room any more.
      this.reading = null;
      try {
        if (this.act(reading.line.trim())) continue;
      } catch (error) {
        if (!(error instanceof Fault)) throw error;
        this.say(error.message);
        continue;
      }
      this.reading = reading;
      return;
    }
  }

  /** Does what a line asks for. @returns false where that has to wait @throws Fault */
  private act(line: string): boolean {
    if (line.startsWith('$')) return this.actOnSystemWord(line.toUpperCase());
    if (line === '') {
      this.say('ok');
      return true;
    }
    if (this.state === 'Alarm') throw new Fault(faults.locked);
    if (this.ways.length > 0) return this.makeWays();
    const words = wordsOf(line);
    // What switches and what waits comes in its turn: when all moves before it are done.
    if ((words.m.length > 0 || words.g.includes(4)) && !this.head.isStill) return false;
    if (this.head.room <= 0) return false;
    return this.obey(words) ? this.makeWays() : true;
  }

  /** Gives the head what is still to be made of a line, as far as there is room. @returns false where some is left */
  private makeWays(): boolean {
    while (this.head.room > 0) {
      const way = this.ways.shift();
      if (!way) break;
      this.begin(way);
    }
    if (this.ways.length > 0) return false;
    this.say('ok');
    return true;
  }

  private actOnSystemWord(word: string): boolean {
    if (word === '$X') {
      if (this.state === 'Alarm') this.state = 'Idle';
    } else if (word === '$H') {
      if (!this.head.isStill) throw new Fault(faults.notIdle);
      this.state = 'Home';
      this.homingLeft = homingS;
      return true;
    } else if (word === '$$') for (const line of figureLines(this.build)) this.say(line);
    else throw new Fault(faults.noSystemWord);
    this.say('ok');
    return true;
  }

  /** Does what switches, and lays out what moves. @returns false where it raised an alarm, which is the answer @throws Fault */
  private obey({ g, m, values }: Words): boolean {
    const power = values.get('S');
    if (power !== undefined) this.power = power;
    for (const code of m) if (code <= 5) this.laser = code === 3 ? 'steady' : code === 4 ? 'follows' : 'off';
    const feed = values.get('F');
    if (feed !== undefined) this.feed = feed;
    const shared = { power: this.laser === 'off' ? 0 : this.power, follows: this.laser !== 'steady' };
    if (g.includes(4)) {
      const waitS = values.get('P') ?? 0;
      // A power that follows the speed is none where the head stands.
      this.begin({ ...shared, to: this.head.target, speed: 0, waitS, power: shared.follows ? 0 : shared.power });
      return true;
    }
    const motion = g.find((code) => code <= 3) ?? this.motionWord;
    if (motion > 1 && this.build.arcsWithin === 0) throw new Fault(faults.unknownWord);
    this.motionWord = motion;
    const [x, y] = this.head.target;
    const to = [values.get('X') ?? x, values.get('Y') ?? y] as const;
    if (!values.has('X') && !values.has('Y')) return true;
    const lit = this.motionWord > 0;
    if (lit && this.feed <= 0) throw new Fault(faults.noFeed);
    const { travelSpeed, topSpeed } = this.build;
    const ends = this.motionWord < 2 ? [to] : this.endsOfArc(to, values);
    if (!ends.every((end) => isOnBed(this.build, end))) {
      this.say('ok');
      this.raiseAlarm(alarms.offTheBed);
      return false;
    }
    const speed = lit ? Math.min(this.feed / 60, topSpeed) : travelSpeed;
    this.ways = ends.map((end) => ({ ...shared, to: end, speed, waitS: 0, power: lit ? shared.power : 0 }));
    return true;
  }

  /** @throws Fault */
  private endsOfArc(to: Task['to'], values: ReadonlyMap<string, number>): Task['to'][] {
    const toCentre = [values.get('I') ?? 0, values.get('J') ?? 0] as const;
    const ends = arcWays(this.head.target, to, { toCentre, clockwise: this.motionWord === 2 }, this.build.arcsWithin);
    if (ends) return ends;
    throw new Fault(faults.noCentre);
  }

  private begin(task: Task): void {
    this.head.give(task);
    if (this.state === 'Idle' && !this.head.isStill) this.state = 'Run';
  }

  private hold(): void {
    if (this.state === 'Run') this.state = 'Hold:0';
  }

  private resume(): void {
    if (this.state === 'Hold:0') this.state = 'Run';
  }

  /** Drops everything. Where the head was moving it has lost its place, as a real one has. */
  private reset(): void {
    const wasMoving = this.state === 'Run' || this.state === 'Home';
    const wasLocked = this.state === 'Alarm';
    this.forget();
    this.head.drop();
    this.say('');
    this.say(greeting);
    this.state = wasMoving || wasLocked ? 'Alarm' : 'Idle';
    if (wasMoving) this.say(`ALARM:${alarms.resetInMotion}`);
  }

  private forget(): void {
    this.buffered = this.onItsWay = '';
    this.reading = null;
    this.ways = [];
    this.power = 0;
    this.laser = 'off';
    this.motionWord = 0;
    this.feed = 0;
  }

  private status(): string {
    const { head, build } = this;
    const parts = [this.state, `MPos:${[...head.place, 0].map((value) => value.toFixed(3)).join(',')}`];
    const free = build.buffer - this.buffered.length - (this.reading?.line.length ?? 0);
    if (build.tellsRoom) parts.push(`Bf:${Math.max(0, head.room)},${free}`);
    const speed = this.state === 'Run' ? head.speed * 60 : 0;
    parts.push(`FS:${speed.toFixed(0)},${this.beam.toFixed(0)}`);
    // Where its zero lies, from time to time.
    if (this.statuses++ % 30 === 0) parts.push('WCO:0.000,0.000,0.000');
    return `<${parts.join('|')}>`;
  }
}
