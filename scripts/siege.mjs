// npm run siege [-- --seed N --kills N --burns N --savers N --plans 0 --times 0]: kills, freezes, full disks and locks
// under load, and counts what was lost, burnt unwatched or untrue. Seeded. Prints the table of docs/reliability.md.
import { parseArgs } from 'node:util';
import { siegeOfBurns } from './siege/burns.mjs';
import { siegeOfPlans } from './siege/plans.mjs';
import { siegeOfSaves } from './siege/saves.mjs';

const { values } = parseArgs({
  options: {
    seed: { type: 'string', default: '1' },
    kills: { type: 'string', default: '300' },
    burns: { type: 'string', default: '100' },
    savers: { type: 'string', default: '50' },
    plans: { type: 'string', default: '1' },
    /** Whether times have bounds: on a machine that has other work to do they say little. */
    times: { type: 'string', default: '1' },
  },
});
const seed = Number(values.seed);
const rows = [
  ...(await siegeOfSaves({ seed, kills: Number(values.kills), savers: Number(values.savers) })),
  ...(Number(values.plans) > 0 ? await siegeOfPlans() : []),
  ...(await siegeOfBurns({ seed, strikes: Number(values.burns) })),
];
const bad = rows.filter(({ what, most, found }) => {
  const isBound = most !== null && (values.times === '1' || !what.endsWith(', ms'));
  return isBound && found > most;
});
console.log(`\nSiege from seed ${seed}\n\n| what | found | at most |\n| --- | ---: | ---: |`);
for (const { what, found, most } of rows) console.log(`| ${what} | ${found} | ${most ?? ''} |`);
console.log(bad.length === 0 ? '\nThe siege found nothing.' : `\nThe siege found ${bad.length} kinds of harm.`);
process.exit(bad.length === 0 ? 0 : 1);
