import type { Errand, LastWalk, MachineCommand, MachineState } from '@lambent/contracts';
import { accelerationAlong, type Machine, truePlace } from '@lambent/core/machine';
import {
  type MachineDriver,
  type MachineStatus,
  type MachineWord,
  restingStatus,
  standInWords,
} from '@lambent/machines';
import { Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { type Observable, Subject } from 'rxjs';
import { notFound, PlainError } from '../common/plain-error.ts';
import { EventHub } from '../events/event-hub.ts';
import { MachineDrivers } from './machine-drivers.ts';
import { MachinesService } from './machines.service.ts';
import { Pace } from './pace.ts';

/** Burning that may wait in a machine, in seconds; more where the head needs longer than that to brake. */
const windowS = 2;
/** How often the page is told where a machine is. */
const tellEveryMs = 60;
/** A machine that makes no sense is put into the log so often, and then counted only. */
const mostOddities = 20;
/** A machine whose line is closed while Lambent goes on stands already: it is not waited for. */
const closeWithinMs = 500;

/** A machine of the shop, and the line to it; null where there is none. */
interface Link {
  readonly machine: Machine;
  readonly driver: MachineDriver | null;
  /** Why there is no line. */
  readonly reason: string;
}

/** What a machine does by hand, which walk it was told last, and which job is being made ready for it. */
interface Hand {
  readonly errand: Errand | null;
  readonly lastWalk: LastWalk | null;
  readonly makingReady: string | null;
}

const notConnected = 'not connected';
const atRest: Hand = { errand: null, lastWalk: null, makingReady: null };

/** A line to every machine of the shop that is connected. */
@Injectable()
export class MachineLinks implements OnApplicationBootstrap {
  private readonly log = new Logger('Machines');
  private readonly links = new Map<string, Link>();
  private readonly hands = new Map<string, Hand>();
  /** By machine: aborted when it is next told to stop. */
  private readonly stops = new Map<string, AbortController>();
  private readonly made = new Subject<string>();

  constructor(
    private readonly machines: MachinesService,
    private readonly hub: EventHub,
    private readonly makers: MachineDrivers,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    for (const machine of await this.machines.list()) await this.link(machine);
  }

  /** The ids of machines to which a line is made from now on. */
  get newLines(): Observable<string> {
    return this.made.asObservable();
  }

  /** Makes a line to a machine as it is by now, in place of the one to it as it was. */
  async follow(machine: Machine): Promise<void> {
    const known = this.links.get(machine.id);
    if (known && isReachedAlike(known.machine, machine)) {
      this.links.set(machine.id, { ...known, machine });
      return;
    }
    if (known?.driver) {
      await known.driver.close(closeWithinMs);
      this.makers.forget(machine.id);
    }
    await this.link(machine);
  }

  /** @throws PlainError 409 where the machine has a run, and a change would close the line to it. */
  expectMayChange(machine: Machine): void {
    const known = this.links.get(machine.id);
    if (!known?.driver || isReachedAlike(known.machine, machine)) return;
    const { state, runId } = known.driver.status;
    if (runId === null && state !== 'running' && state !== 'held') return;
    throw new PlainError(
      409,
      'machine-runs',
      `${known.machine.name} has a run. Change how it moves or is reached when the run has ended.`,
    );
  }

  /** Closes the line to a machine that is not the shop's any more. */
  async forget(id: string): Promise<void> {
    await this.links.get(id)?.driver?.close(closeWithinMs);
    this.makers.forget(id);
    this.links.delete(id);
    this.hands.delete(id);
    this.hub.forgetMachine(id);
  }

  /** Whether a machine has a run. */
  get isAnyBusy(): boolean {
    return this.states().some(({ runId, state }) => runId !== null || state === 'running' || state === 'held');
  }

  private async link(machine: Machine): Promise<void> {
    let driver: MachineDriver | null = null;
    let reason = notConnected;
    this.links.set(machine.id, { machine, driver, reason });
    try {
      driver = machine.isPutAway ? null : await this.driverFor(machine);
    } catch (error) {
      // The machine is kept as it was typed; what keeps it from being reached is said with it.
      reason = (error as Error).message;
      this.log.error(`${machine.name}: ${reason}`);
    }
    this.links.set(machine.id, { machine, driver, reason });
    this.hub.say({ type: 'machine', machine: this.state(machine.id) });
    driver?.open();
    if (driver) this.made.next(machine.id);
  }

  private async driverFor(machine: Machine): Promise<MachineDriver | null> {
    const { id, name, topSpeed } = machine;
    const acceleration = Math.min(accelerationAlong(machine, 1, 0), accelerationAlong(machine, 0, 1));
    // A page draws what it hears; a machine that is fed fast would else keep it from anything else.
    // What it does by hand is told as it is by then.
    const pace = new Pace<MachineStatus>(tellEveryMs, (status) =>
      this.hub.say({ type: 'machine', machine: this.stateFrom(id, status, driver) }),
    );
    let told: MachineStatus | null = null;
    let oddities = 0;
    let driver: MachineDriver | null = null;
    driver = await this.makers.make(machine, {
      windowS: Math.max(windowS, (2 * topSpeed) / acceleration),
      changed: (status) => {
        const urgent =
          !told || (['state', 'reason', 'lid', 'runId'] as const).some((name) => told?.[name] !== status[name]);
        told = status;
        pace.take(status, urgent);
      },
      odd: (what) => {
        if (++oddities <= mostOddities) this.log.warn(`${name} said what makes no sense: ${what}`);
      },
    });
    return driver;
  }

  states(): MachineState[] {
    return Array.from(this.links.keys(), (id) => this.state(id));
  }

  /** How a machine is; `away` where it is not connected. @throws PlainError 404. */
  state(id: string): MachineState {
    const link = this.links.get(id);
    if (!link) throw notFound('machine');
    const { driver, reason } = link;
    return this.stateFrom(id, driver?.status ?? { ...restingStatus, state: 'away', reason, lid: null }, driver);
  }

  /** Says what a machine does by hand from now on. */
  tellHand(id: string, change: Partial<Hand>): void {
    this.hands.set(id, { ...(this.hands.get(id) ?? atRest), ...change });
    if (this.links.has(id)) this.hub.say({ type: 'machine', machine: this.state(id) });
  }

  private stateFrom(machineId: string, status: MachineStatus, driver: MachineDriver | null): MachineState {
    const hand = this.hands.get(machineId) ?? atRest;
    const { words, watch } = driver?.capabilities ?? { words: [], watch: false };
    const orders: MachineCommand[] = driver ? ['hold', 'resume', 'stop', ...words.map((word) => orderOf[word])] : [];
    // What it does by hand is no run.
    const runId = hand.errand ? null : status.runId;
    const place = truePlace(this.links.get(machineId)?.machine ?? {}, status);
    return { machineId, ...status, ...place, runId, orders, watches: watch, ...hand };
  }

  /** Aborted when a machine is next told to stop: what is about to begin on it then must not begin. */
  stopSignal(id: string): AbortSignal {
    const stop = this.stops.get(id) ?? new AbortController();
    this.stops.set(id, stop);
    return stop.signal;
  }

  /**
   * Drops what a machine has, and what is about to begin on it.
   * @throws MachineRefusal where it does not confirm in time that it stands
   */
  async stop(id: string): Promise<void> {
    this.stops.get(id)?.abort();
    this.stops.delete(id);
    await this.get(id).stop();
  }

  /** The line to a machine that is reached in the same way; null where there is none. */
  lineTo({ id, connection }: Machine): MachineDriver | null {
    const { machine, driver = null } = this.links.get(id) ?? {};
    return JSON.stringify(machine?.connection) === JSON.stringify(connection) ? driver : null;
  }

  /** Whether a machine is known here, connected or not. */
  knows(id: string): boolean {
    return this.links.has(id);
  }

  /** The machines to which there is a line. */
  get ids(): string[] {
    return Array.from(this.links).flatMap(([id, { driver }]) => (driver ? [id] : []));
  }

  /** @throws PlainError 404 where there is no such machine, 409 where it is not connected. */
  get(id: string): MachineDriver {
    const link = this.links.get(id);
    if (!link) throw notFound('machine');
    if (link.driver) return link.driver;
    const { name, isPutAway } = link.machine;
    throw new PlainError(
      409,
      'not-connected',
      isPutAway
        ? `${name} is put away. Take it back under Machines, or choose another.`
        : `${name} is not connected. Say under Machines how it is reached, or choose another.`,
    );
  }

  /** Holds what runs and closes the lines. */
  async close(withinMs: number): Promise<void> {
    await Promise.all(Array.from(this.links.values(), ({ driver }) => driver?.close(withinMs)));
    this.makers.forgetAll();
  }
}

/** Whether the line to a machine, and a stand-in of it, stay as they are. */
function isReachedAlike(before: Machine, after: Machine): boolean {
  const asText = (machine: Machine) => {
    const { topSpeed, acceleration, accelerationY, lookAhead, connection, isPutAway } = machine;
    const words = connection?.kind === 'stand-in' ? standInWords(machine, 0, connection.factor) : [];
    return JSON.stringify([topSpeed, acceleration, accelerationY, lookAhead, connection, isPutAway, words]);
  };
  return asText(before) === asText(after);
}

/** What each word of a driver is as an order of the page. */
const orderOf: Readonly<Record<MachineWord, MachineCommand>> = {
  home: 'home',
  clear: 'clear',
  'lid open': 'open-lid',
  'lid close': 'close-lid',
  'pointer on': 'pointer-on',
  'pointer off': 'pointer-off',
};
