import type { FiguresAnswer, FigureTable } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import { type Material, thicknessOf } from '@lambent/core/recipes';

/** What machines and materials are called. */
interface Names {
  readonly machines: readonly Pick<Machine, 'id' | 'name'>[];
  readonly materials: readonly Material[];
}

/** A table of figures as rows, its head first. */
export function figureRows(table: FigureTable, figures: FiguresAnswer, { machines, materials }: Names): string[][] {
  const { weeks, people, stock, currency } = figures;
  const nameOf = (machineId: string) => machines.find(({ id }) => id === machineId)?.name ?? machineId;
  switch (table) {
    case 'hours':
      return [
        ['week', 'machine', 'hours', 'runs'],
        ...weeks.flatMap(({ week, machines: each }) =>
          each.map(({ machineId, seconds, runs }) => [week, nameOf(machineId), hoursOf(seconds), String(runs)]),
        ),
      ];
    case 'money':
      return [
        ['week', 'amount', 'currency', 'jobs'],
        ...weeks.map(({ week, amount, jobs }) => [week, amount.toFixed(2), currency, String(jobs)]),
      ];
    case 'people':
      return [
        ['person', 'hours', 'runs', 'amount', 'currency', 'jobs'],
        ...people.map(({ name, seconds, runs, amount, jobs }) => {
          return [name, hoursOf(seconds), String(runs), amount.toFixed(2), currency, String(jobs)];
        }),
      ];
    case 'sheets':
      return [
        ['material', 'mm', 'used', 'left', 'offcuts used', 'offcuts left'],
        ...stock.map(({ materialId, used, left, offcutsUsed, offcutsLeft }) => {
          const material = materials.find(({ id }) => id === materialId);
          const words = material ? [material.name, String(thicknessOf(material))] : [materialId, ''];
          return [...words, String(used), left === null ? '' : String(left), String(offcutsUsed), String(offcutsLeft)];
        }),
      ];
  }
}

/** In hundredths of an hour. */
function hoursOf(seconds: number): string {
  return (seconds / 3600).toFixed(2);
}
