import type { Errand, MachineState, TimingAnswer } from '@lambent/contracts';
import { languageOf, type Machine, toldPlace, toMachine } from '@lambent/core/machine';
import { type CardPart, timingCard } from '@lambent/core/timing';
import type { MachineDriver, Program } from '@lambent/machines';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { WriteQueue } from '../data/write-queue.ts';
import { HandService } from '../hand/hand.service.ts';
import { lineTo, unlitProgram } from '../hand/hand-program.ts';
import { MachineLinks } from '../machines/machine-links.ts';
import { MachinesService } from '../machines/machines.service.ts';
import { WorkService } from '../work/work.service.ts';
import { TimingCardEntity } from './timing-card.entity.ts';

/** This share of a card is run; the rest of it is worked out. */
const runShare = 0.9;

/** Has machines run timing cards, unlit, and keeps what these tell. */
@Injectable()
export class TimingService {
  /** By machine: why its last card came to no end. */
  private readonly troubles = new Map<string, string>();

  constructor(
    @InjectRepository(TimingCardEntity) private readonly rows: Repository<TimingCardEntity>,
    private readonly hand: HandService,
    private readonly links: MachineLinks,
    private readonly machines: MachinesService,
    private readonly work: WorkService,
    private readonly writes: WriteQueue,
  ) {}

  /** @throws PlainError 404 where there is no such machine */
  async last(machineId: string): Promise<TimingAnswer> {
    await this.machines.get(machineId);
    const row = await this.rows.findOneBy({ machineId });
    const card = row && {
      measuredAt: row.measuredAt.toISOString(),
      parts: row.parts,
      figures: row.figures,
      motion: row.motion,
    };
    return { card, trouble: this.troubles.get(machineId) ?? null };
  }

  /**
   * Has a machine run its timing card; answered when that has begun.
   * @throws PlainError 404 where there is no such machine, 409 where it cannot move now
   */
  async begin(machineId: string): Promise<MachineState> {
    const machine = await this.machines.get(machineId);
    const errand: Errand = { kind: 'timing', to: null, jobId: null, title: null, share: 0 };
    return this.hand.begin(machineId, errand, async (driver) => {
      this.troubles.delete(machineId);
      try {
        await this.measure(machine, driver, (share) =>
          this.links.tellHand(machineId, { errand: { ...errand, share } }),
        );
      } catch (error) {
        this.troubles.set(machineId, (error as Error).message);
        throw error;
      }
    });
  }

  private async measure(machine: Machine, driver: MachineDriver, done: (share: number) => void): Promise<void> {
    const card = timingCard(machine);
    const seconds: number[] = [];
    for (const part of card) {
      seconds.push(await secondsOnMachine(machine, driver, part));
      done((runShare * seconds.length) / card.length);
    }
    const { parts, figures, motion } = await this.work.fitTiming({ machine, seconds });
    await this.writes.do('keepTimingCard', {
      machineId: machine.id,
      measuredAt: new Date(),
      parts: parts.map((part, i) => ({ title: card[i].title, tookS: seconds[i], ...part })),
      figures: [...figures],
      motion,
    });
  }
}

/**
 * How long a part takes, from rest to rest. By the clock on the wall it is run twice, and the quicker counts: what
 * disturbs a line only makes it slower.
 * @throws Error where it is not run to its end
 */
async function secondsOnMachine(machine: Machine, driver: MachineDriver, part: CardPart): Promise<number> {
  const run = async (program: Program) => {
    const { status, reason, runS } = await driver.send(program);
    if (status === 'done') return runS;
    const why = reason ? `${status}, ${reason}` : status;
    throw new Error(`The timing card was not run to its end (${why}). What was measured before stands.`);
  };
  const start = toldPlace(machine, toMachine(machine, part.start.x, part.start.y));
  let least = Infinity;
  for (let left = languageOf(machine) === 'plain' ? 2 : 1; left > 0; left--) {
    await run(unlitProgram(lineTo(start)));
    least = Math.min(least, await run(unlitProgram(part.lines)));
  }
  return least;
}
