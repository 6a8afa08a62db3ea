import { createHash } from 'node:crypto';
import type { Pricing, Shop } from '@lambent/core/recipes';

/** A job as the database has it, beside what was worked out for one of its versions. */
interface EstimatedJob {
  readonly version: number;
  readonly machineId: string;
  /** Null where nothing was worked out yet. */
  readonly estimatedVersion: number | null;
  /** As JSON. */
  readonly materialIds: string | null;
  readonly shopHash: string | null;
}

/** A state of the shop, by which it is told whether what was worked out earlier still holds. */
export class EstimateBasis {
  private readonly general: string;
  private readonly hashes = new Map<string, string>();

  constructor(
    readonly shop: Pick<Shop, 'machines' | 'keys' | 'materials'>,
    readonly pricing: Pricing,
  ) {
    this.general = hashOf([shop.keys, pricing]);
    for (const { id, ...machine } of shop.machines) this.hashes.set(`machine ${id}`, hashOf(machine));
    for (const { id, stock, ...material } of shop.materials) {
      // How many sheets there are changes with every run, and no price goes by it.
      const sheets = stock?.map(({ count: _, ...sheet }) => sheet);
      this.hashes.set(`material ${id}`, hashOf({ ...material, sheets }));
    }
  }

  /** Whether what was worked out for a job holds for its version, and for the shop as it is. */
  isCurrent({ version, estimatedVersion, machineId, materialIds, shopHash }: EstimatedJob): boolean {
    return estimatedVersion === version && this.hashFor(machineId, JSON.parse(materialIds ?? '[]')) === shopHash;
  }

  /** Stands for all that a job on a machine and some materials goes by; another one where any of it is changed. */
  hashFor(machineId: string, materialIds: readonly string[]): string {
    const names = [`machine ${machineId}`, ...materialIds.map((id) => `material ${id}`)];
    return hashOf([this.general, ...names.map((name) => this.hashes.get(name) ?? null)]);
  }
}

function hashOf(what: unknown): string {
  return createHash('sha256').update(JSON.stringify(what)).digest('hex').slice(0, 16);
}
