import type { Settings } from '@lambent/contracts';
import { atWork, type Machine } from '@lambent/core/machine';
import type { Material } from '@lambent/core/recipes';

/** What a shop is begun with, in the order in which each needs the one before. */
export const firstSteps = ['shop', 'machine', 'material', 'key', 'job'] as const;
export type FirstStep = (typeof firstSteps)[number];

/** What is known of a shop while it is begun. */
export interface Beginning {
  readonly settings: Settings;
  readonly machines: readonly Machine[];
  readonly materials: readonly Material[];
  readonly jobCount: number;
}

/** Whether a shop is led through its first steps: until it has a job, or they were skipped. */
export function isBeginning({ settings, jobCount }: Beginning): boolean {
  return !settings.isSetUp && jobCount === 0;
}

/** The steps that are done, by what the shop has. A key it has from the start: that step is done when it was looked at. */
export function stepsDone({ settings, machines, materials, jobCount }: Beginning): ReadonlySet<FirstStep> {
  const done: Record<FirstStep, boolean> = {
    shop: settings.shopName !== '',
    machine: atWork(machines).length > 0,
    material: materials.some(({ forbidden }) => !forbidden),
    key: false,
    job: jobCount > 0,
  };
  return new Set(firstSteps.filter((step) => done[step]));
}
