import type { AirDto, Errand, FocusDto, HeadDto, LastWalk, MachineState, WalkDto } from '@lambent/contracts';
import { findRun } from '@lambent/core/document';
import { boxContains, boxOf, type Point } from '@lambent/core/geometry';
import { bedBox, fromMachine, type Machine, toldPlace, toMachine } from '@lambent/core/machine';
import { landingNeeds } from '@lambent/core/plan';
import type { MachineDriver, ProgramLine } from '@lambent/machines';
import { Injectable, Logger } from '@nestjs/common';
import { notFound, PlainError } from '../common/plain-error.ts';
import { JobsService } from '../jobs/jobs.service.ts';
import { jobWithoutDrawing } from '../jobs/pack.ts';
import { MachineLinks } from '../machines/machine-links.ts';
import { MachinesService } from '../machines/machines.service.ts';
import { ShopService } from '../shop/shop.service.ts';
import { WorkService } from '../work/work.service.ts';
import { airLines, focusLines, lineTo, unlitProgram, walkLines } from './hand-program.ts';

/** Places nearer to the edge than this, in mm, are on it. */
const slackMm = 0.001;
/** A walk that is shorter than this, in mm, is gone once. */
const leastWalkMm = 0.1;

/** What a machine does by hand: the beam is off, and nothing of it is on record. */
@Injectable()
export class HandService {
  private readonly log = new Logger('By hand');
  /** By machine: what it is at, until that has ended. */
  private readonly under = new Map<string, Promise<void>>();
  /** By machine: where a head that moves by hand is to go in the end, in the machine's own frame. */
  private readonly targets = new Map<string, Point>();

  constructor(
    private readonly links: MachineLinks,
    private readonly machines: MachinesService,
    private readonly jobs: JobsService,
    private readonly shop: ShopService,
    private readonly work: WorkService,
  ) {}

  /**
   * Sends the head to a place on the bed, or so far from where it is or is going. A step over the edge ends at it.
   * @throws PlainError 400 where the place is off the bed or none is said, 409 where the machine cannot move now
   */
  async go(machineId: string, wish: HeadDto): Promise<MachineState> {
    const machine = await this.machines.get(machineId);
    const driver = this.links.get(machineId);
    const goesTo = this.targets.get(machineId);
    const to = targetOf(machine, goesTo ?? this.links.state(machineId), wish);
    const errand = { kind: 'move', to, jobId: null, title: null } as const;
    if (goesTo) {
      this.targets.set(machineId, to);
      this.links.tellHand(machineId, { errand });
      return this.links.state(machineId);
    }
    return this.begin(machineId, errand, async () => {
      this.targets.set(machineId, to);
      // Where it is sent meanwhile it goes afterwards.
      for (let next: Point | undefined = to; next; ) {
        const { status } = await driver.send(unlitProgram(lineTo(toldPlace(machine, next))));
        const last = this.targets.get(machineId);
        next = status === 'done' && last !== next ? last : undefined;
      }
    });
  }

  /** @throws PlainError 400 where the focus does not go there, 409 where it cannot move now */
  async focus(machineId: string, { dz }: FocusDto): Promise<MachineState> {
    const { name, focus } = await this.machines.get(machineId);
    const { z } = this.links.get(machineId).status;
    if (!focus || z === null) {
      throw new PlainError(400, 'no-focus', `The focus of ${name} is set by hand, at the machine.`);
    }
    const to = Math.min(focus.highest, Math.max(focus.lowest, z + dz));
    if (to === z) throw new PlainError(409, 'focus-ends', `The focus of ${name} goes no further, ${z} mm.`);
    return this.once(machineId, 'focus', focusLines(to));
  }

  /** @throws PlainError 400 where the machine has no such air, 409 where it cannot be told now */
  async air(machineId: string, { air }: AirDto): Promise<MachineState> {
    const machine = await this.machines.get(machineId);
    if (!machine.air || (air !== 'off' && !machine.air.levels.includes(air))) {
      throw new PlainError(400, 'no-air', `${machine.name} has no air that could be switched so.`);
    }
    return this.once(machineId, 'air', airLines(air));
  }

  /**
   * Has the head go around a run of a saved version, again and again until it is stopped.
   * @throws PlainError 404 where there is no such run, 409 where the machine cannot move now or the way leaves the bed
   */
  async walk(jobId: string, wish: WalkDto, signal: AbortSignal): Promise<MachineState> {
    const [{ title }, job] = await Promise.all([this.jobs.headOf(jobId), this.jobs.packed(jobId, wish.version)]);
    const { machineId, runs } = jobWithoutDrawing(job.settings);
    const run = findRun(runs, wish.runId);
    if (!run) throw notFound('run of this job');
    const machine = await this.machines.get(machineId);
    await this.end(machineId);
    this.expectFree(machineId);
    const stopped = this.links.stopSignal(machineId);
    const shop = await this.shop.everything();
    const { x, y } = this.links.state(machineId);
    const choice = { runId: run.id, head: fromMachine(machine, x, y) };
    const { ways, needs } = await this.work.walk({ job, shop, choice, shape: wish.shape }, signal);
    if (stopped.aborted)
      throw new PlainError(409, 'stopped', `${machine.name} was told to stop before the walk began.`);
    if (needs)
      throw new PlainError(409, 'no-landing', `It is not known where ${run.name} lands. ${landingNeeds[needs]}`);
    const inFrame = waysOf(machine, ways, wish.spot);
    const speed = Math.min(wish.speed, machine.topSpeed);
    const lastWalk: LastWalk = { ...wish, runId: run.id, jobId, title, runName: run.name };
    this.links.tellHand(machineId, { lastWalk });
    return this.begin(machineId, { kind: 'walk', to: null, jobId, title }, async (driver) => {
      const lap = walkLines(inFrame, speed);
      const isShort = lap.reduce((sum, { seconds }) => sum + seconds * speed, 0) < leastWalkMm;
      let isOn = true;
      while (isOn) {
        const { status } = await driver.send(unlitProgram(lap));
        isOn = status === 'done' && !isShort;
      }
    });
  }

  /** Stops what a machine does by hand, and waits until it stands. @throws MachineRefusal where it does not stand in time */
  async end(machineId: string): Promise<void> {
    const under = this.under.get(machineId);
    if (!under) return;
    await this.links.get(machineId).stop();
    await under;
  }

  private once(machineId: string, kind: Errand['kind'], lines: readonly ProgramLine[]): MachineState {
    return this.begin(machineId, { kind, to: null, jobId: null, title: null }, async (driver) => {
      await driver.send(unlitProgram(lines));
    });
  }

  /**
   * Begins what is to be done; its end is not waited for.
   * @throws MachineRefusal where the machine cannot move now
   */
  begin(machineId: string, errand: Errand, work: (driver: MachineDriver) => Promise<void>): MachineState {
    const driver = this.links.get(machineId);
    this.expectFree(machineId);
    this.links.tellHand(machineId, { errand });
    const done = work(driver)
      .catch((error) => this.log.warn(`${machineId}: ${(error as Error).message}`))
      .finally(() => {
        this.under.delete(machineId);
        this.targets.delete(machineId);
        this.links.tellHand(machineId, { errand: null });
      });
    this.under.set(machineId, done);
    return this.links.state(machineId);
  }

  private expectFree(machineId: string): void {
    const busy = this.links.get(machineId).busy(true);
    if (busy) throw busy;
    const { makingReady } = this.links.state(machineId);
    if (!makingReady) return;
    throw new PlainError(409, 'machine-busy', `The machine is not free: “${makingReady}” is being made ready for it.`);
  }
}

/** Where a head is to go. @throws PlainError */
function targetOf(machine: Machine, from: Point, { x, y, dx, dy }: HeadDto): Point {
  const bed = bedBox(machine);
  if (dx !== undefined || dy !== undefined) {
    const wanted = fromMachine(machine, from.x + (dx ?? 0), from.y + (dy ?? 0));
    const held = { x: within(wanted.x, bed.minX, bed.maxX), y: within(wanted.y, bed.minY, bed.maxY) };
    const to = toMachine(machine, held.x, held.y);
    if (Math.hypot(to.x - from.x, to.y - from.y) < slackMm || distanceOff(machine, to) > slackMm) {
      throw new PlainError(409, 'bed-ends', `The bed of ${machine.name} ends here.`);
    }
    return to;
  }
  if (x === undefined && y === undefined) throw new PlainError(400, 'invalid', 'Say where the head is to go.');
  const to = { x: x ?? from.x, y: y ?? from.y };
  const place = fromMachine(machine, to.x, to.y);
  if (boxContains(bed, boxOf(place.x, place.y, 0, 0), slackMm) && distanceOff(machine, to) <= slackMm) return to;
  const least = toMachine(machine, bed.minX, bed.minY);
  const most = toMachine(machine, bed.maxX, bed.maxY);
  const [fromX, toX] = [least.x, most.x].sort((a, b) => a - b);
  const [fromY, toY] = [least.y, most.y].sort((a, b) => a - b);
  throw new PlainError(
    400,
    'off-bed',
    `X${to.x} Y${to.y} is off the bed of ${machine.name}: X goes from ${fromX} to ${toX} mm, Y from ${fromY} to ${toY} mm.`,
  );
}

/**
 * The ways of the head in the machine's own frame, as it is told them: of the beam, or so that the red pointer goes along them.
 * @throws PlainError 409 where there are none, they leave the bed, or there is no pointer
 */
function waysOf(machine: Machine, ways: readonly (readonly Point[])[], spot: WalkDto['spot']): Point[][] {
  if (ways.length === 0)
    throw new PlainError(409, 'nothing-to-walk', 'Nothing burns in this run: there is nothing to go around.');
  const { pointer } = machine;
  if (spot === 'pointer' && !pointer) {
    throw new PlainError(409, 'no-pointer', `${machine.name} has no red pointer: say under Machines where it shines.`);
  }
  const shift = spot === 'pointer' && pointer ? pointer : { x: 0, y: 0 };
  const inFrame = ways.map((way) =>
    way.map(({ x, y }) => {
      const place = toMachine(machine, x, y);
      return { x: place.x - shift.x, y: place.y - shift.y };
    }),
  );
  const off = Math.max(0, ...inFrame.flat().map((place) => distanceOff(machine, place)));
  if (off <= slackMm) return inFrame.map((way) => way.map((place) => toldPlace(machine, place)));
  const what = spot === 'pointer' ? 'For the red pointer to go around this run, the head' : 'Around this run the head';
  throw new PlainError(409, 'off-bed', `${what} would leave the bed by ${off.toFixed(2)} mm. Move the run in.`);
}

/** How far off its bed, in mm, a machine would believe to be that is sent to a place in its frame; 0 or less on it. */
function distanceOff(machine: Machine, place: Point): number {
  const told = toldPlace(machine, place);
  const { x, y } = fromMachine(machine, told.x, told.y);
  const { minX, minY, maxX, maxY } = bedBox(machine);
  return Math.max(minX - x, x - maxX, minY - y, y - maxY);
}

function within(value: number, least: number, most: number): number {
  return Math.min(most, Math.max(least, value));
}
