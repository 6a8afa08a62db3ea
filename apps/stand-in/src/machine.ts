import { placesOf } from './arc.ts';
import type { LitStretch } from './blocks.ts';
import { type Command, isRemark, LineRefused, type Motion as MotionWord, readLine } from './line.ts';
import { type Build, bufferSize, homingS, type State, type Status } from './machine-status.ts';
import { Motion } from './motion.ts';
import { expectInFocus, expectPower, isOnBed, trueStretch } from './reach.ts';
import { type Run, runIn, runStatus } from './run.ts';
import { type BedPicture, energyPerMm, Stock } from './stock.ts';
import { Watch } from './watch.ts';

const busy = 'error:a program is running';

/** The simulated machine: takes lines, keeps its state, lets time pass. Knows nothing of sockets. */
export class StandInMachine {
  private readonly motion: Motion;
  private readonly stock = new Stock();
  private state: State = 'homing';
  private reason: string | null = null;
  private lid: 'open' | 'closed' = 'closed';
  private homingLeft = homingS;
  private lastMotion: MotionWord = 0;
  private feed = 0;
  private power = 0;
  private laser: 'off' | 'steady' | 'by speed' = 'off';
  private air: 'off' | 'low' | 'high' = 'off';
  private at = { x: 0, y: 0, z: 0 };
  /** Lines taken since `run begin`, and the number of the last one. */
  private taken = 0;
  private lineNumber = 0;
  private runS = 0;
  private pointer = false;
  private run: Run | null = null;
  private readonly watch = new Watch();

  constructor(private readonly build: Build) {
    this.motion = new Motion(build, (stretch) => this.burn(trueStretch(build, stretch)));
  }

  /** Whether the next line can be taken now; if not, its answer has to wait. */
  get hasRoom(): boolean {
    return this.motion.waiting < bufferSize;
  }

  /**
   * Takes a word of the stand-in's own, which acts at once.
   * @returns `ok` or what was asked for, or `error:` and why; null when the line is no such word
   */
  takeWord(line: string): string | null {
    if (/^sheets\s/i.test(line)) return this.isBusy ? busy : this.stock.take(line.slice(7));
    switch (line.trim().toLowerCase()) {
      case 'home':
        return this.home();
      case 'clear':
        return this.clearAlarm();
      case 'lid open':
        return this.openLid();
      case 'lid close':
        this.lid = 'closed';
        if (this.reason === 'the lid is open') this.reason = 'the lid was opened';
        return 'ok';
      case 'pointer on':
      case 'pointer off':
        this.pointer = /on\s*$/i.test(line);
        return 'ok';
      case 'limit':
        this.alarm('a limit switch was touched');
        return 'ok';
      case 'look':
        return JSON.stringify(this.look());
      default:
        return this.beginRun(line) ?? this.watch.takeWord(line);
    }
  }

  /** What comes from here on is another run. */
  private beginRun(line: string): string | null {
    const run = runIn(line);
    if (!run) return null;
    const { id, isUnlit } = run;
    if (id && (this.state !== 'idle' || this.motion.waiting > 0)) return `error:the machine is ${this.state}`;
    if (id && this.lid === 'open' && !isUnlit) return 'error:the lid is open';
    this.taken = this.lineNumber = this.runS = 0;
    this.watch.begin();
    this.motion.doneLine = this.motion.doneOrdinal = 0;
    this.run = id ? run : null;
    if (isUnlit) this.laser = 'off';
    return 'ok';
  }

  /** Something was heard, whatever it was. */
  hear = (): void => this.watch.heard();

  /** Lets so many seconds of the clock on the wall pass without hearing anything. */
  listen(seconds: number): void {
    const tooLong = this.watch.silent(seconds);
    if (tooLong && this.state === 'running') this.hold(tooLong);
  }

  /** Whether lines of the run have not come yet. */
  private get moreToCome(): boolean {
    return this.run !== null && !this.run.dropped && this.lineNumber < this.run.lines;
  }

  /** Takes one line of a program. @returns the answer: `ok`, or `error:` and why */
  take(line: string): string {
    if (this.state === 'alarm') return `error:the machine is in alarm, ${this.reason}`;
    if (this.state === 'homing') return 'error:the machine is homing';
    this.taken++;
    this.lineNumber++;
    try {
      const command = readLine(line, this.lastMotion);
      if (command.number !== null) this.lineNumber = command.number;
      if (command.kind === 'air') this.air = command.level;
      if (command.kind === 'nothing' && isRemark(line)) return 'ok';
      if (command.kind === 'nothing' || command.kind === 'air') return this.switched();
      if (command.kind === 'wait')
        return this.stand(command.seconds, this.at.z, this.laser === 'steady' ? this.power : 0);
      expectPower(this.build, command.power);
      if (command.kind === 'laser') {
        if (this.isUnlit && command.mode !== 'off') throw new LineRefused('this run is to stay unlit');
        this.laser = command.mode;
        this.power = command.power ?? this.power;
        return this.switched();
      }
      this.power = command.power ?? this.power;
      this.feed = command.feed ?? this.feed;
      this.lastMotion = command.motion;
      if (command.z !== null) return this.refocus(command.z, command);
      return this.move(command);
    } catch (error) {
      if (error instanceof LineRefused) return `error:${error.message}`;
      throw error;
    }
  }

  /** The bed as it is seen from above; null where nothing is burnt. */
  look = (): BedPicture | null => this.stock.look();

  private get isBusy(): boolean {
    return this.state === 'running' || this.state === 'held';
  }

  private burn(stretch: LitStretch): void {
    const { fromX, fromY, toX, toY, z } = stretch;
    this.stock.burn(fromX, fromY, toX, toY, energyPerMm(this.build, stretch), z);
  }

  private refocus(z: number, { x, y }: { x: number | null; y: number | null }): string {
    if (x !== null || y !== null) throw new LineRefused('Z moves alone');
    expectInFocus(this.build, z);
    const seconds = Math.abs(z - this.at.z) / this.build.focusSpeed;
    this.at.z = z;
    return this.stand(seconds, z, 0);
  }

  /** What switches something waits for the moves before it. */
  private switched(): string {
    this.motion.addSwitch(this.lineNumber, this.taken);
    if (this.motion.waiting > 0) this.begin();
    return 'ok';
  }

  private stand(seconds: number, z: number, power: number): string {
    this.motion.addStand({ seconds, z, power, line: this.lineNumber, ordinal: this.taken });
    this.begin();
    return 'ok';
  }

  /** Begins to move when there is something to do. */
  private begin(): void {
    if (this.state !== 'idle') return;
    if (this.lid === 'open' && !this.isUnlit) this.hold('the lid is open');
    else this.state = 'running';
  }

  private move(command: Extract<Command, { kind: 'move' }>): string {
    const { travelSpeed, topSpeed, arcsWithin } = this.build;
    const rapid = command.motion === 0;
    const places = placesOf(command, this.at, arcsWithin);
    const off = places.find(({ x, y }) => !isOnBed(this.build, x, y));
    if (off) return this.alarm(`X${off.x} Y${off.y} is off the bed`);
    if (!rapid && this.feed === 0) throw new LineRefused('G1 before any F');
    const speed = rapid ? travelSpeed : Math.min(topSpeed, this.feed / 60);
    const power = rapid || this.laser === 'off' ? 0 : this.power;
    const steady = this.laser === 'steady';
    this.motion.addLine(places, { speed, power, steady, line: this.lineNumber, ordinal: this.taken });
    this.at = { ...places[places.length - 1], z: this.at.z };
    this.begin();
    return 'ok';
  }

  hold(reason = 'held by hand'): void {
    if (this.state !== 'running' && (this.state !== 'idle' || this.motion.waiting === 0)) return;
    this.state = 'held';
    this.reason = reason;
  }

  resume(): void {
    if (this.state !== 'held' || (this.lid === 'open' && !this.isUnlit)) return;
    this.state = 'running';
    this.reason = null;
  }

  /** Drops the program; the head stands where it is, the beam off. */
  stop(): void {
    if (this.run) this.run.dropped = true;
    if (this.state === 'homing' || this.state === 'alarm') return;
    this.forget();
    this.state = 'idle';
    this.reason = null;
  }

  /** With an open lid the head may move, as long as nothing can burn. */
  private get isUnlit(): boolean {
    return this.run !== null && !this.run.dropped && this.run.isUnlit;
  }

  private openLid(): string {
    this.lid = 'open';
    if (this.state === 'running' && !this.isUnlit) this.hold('the lid is open');
    else if (this.state === 'held') this.reason = 'the lid is open';
    return 'ok';
  }

  private home(): string {
    if (this.isBusy) return busy;
    this.forget();
    this.state = 'homing';
    this.reason = null;
    this.homingLeft = homingS;
    return 'ok';
  }

  private clearAlarm(): string {
    if (this.state === 'alarm') {
      this.state = 'idle';
      this.reason = null;
    }
    return 'ok';
  }

  private alarm(reason: string): string {
    if (this.run) this.run.dropped = true;
    this.forget();
    this.state = 'alarm';
    this.reason = reason;
    return `error:${reason}`;
  }

  private forget(): void {
    this.motion.clear();
    this.laser = this.air = 'off';
    this.power = 0;
    this.at = { x: this.motion.x, y: this.motion.y, z: this.motion.z };
  }

  /**
   * Lets machine time pass. While lines of a run are to come, it passes only as far as the moves ahead are known: at
   * many times a real machine's speed, the line would else be too slow to keep the head fed.
   * @param linesComeIn whether lines came in within the last moments
   */
  advance(seconds: number, linesComeIn = false): void {
    if (this.state === 'homing') {
      this.homingLeft -= seconds;
      if (this.homingLeft <= 0) {
        this.motion.place(0, 0);
        this.at.x = this.at.y = 0;
        this.state = 'idle';
      }
      return;
    }
    if (this.state !== 'running') return;
    const moved = this.motion.advance(seconds, this.moreToCome && linesComeIn);
    this.runS += moved;
    this.watch.burnt(moved);
    if (this.motion.waiting === 0 && !this.moreToCome) this.state = 'idle';
  }

  status(): Status {
    const burning = this.state === 'running' && this.motion.power > 0;
    return {
      state: this.state,
      reason: this.reason,
      x: this.motion.x,
      y: this.motion.y,
      z: this.motion.z,
      air: this.air,
      pointer: this.pointer,
      feed: this.state === 'running' ? this.motion.speed * 60 : 0,
      power: burning ? this.motion.power : 0,
      waiting: this.motion.waiting,
      buffer: bufferSize,
      lid: this.lid,
      line: this.motion.doneLine,
      runS: this.runS,
      run: runStatus(this.run, this.taken, this.motion.doneOrdinal),
      unheardS: this.watch.unheardS,
    };
  }
}
