import { boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { accelerationAlong } from '../machine/machine.ts';
import { engravesAreas } from '../operations/operations.ts';
import { engravedFills } from '../plan/fill.ts';
import { planJob } from '../plan/plan.ts';
import type { PreparedJob, PreparedLayer } from '../plan/prepare.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { formatDuration } from '../units/duration.ts';
import { type Check, finding, withMends } from './finding.ts';

/** Less than this is not worth a word: a share of the step's time, and seconds. */
const leastShare = 0.2;
const leastS = 20;

/** Engravings that burn much sooner with their lines turned by a quarter. */
export const checkScanDirection: Check = (prepared, { steps }) =>
  prepared.layers.flatMap((layer) => {
    const { settings } = layer.applied;
    const step = steps.find(({ preparedId }) => preparedId === layer.id);
    if (!step || !settings || !engravesAreas(layer.layer.operation)) return [];
    const turned = (settings.scanAngle + 90) % 180;
    if (!isWorthwhile(step.timeS, 1 - roughShare(prepared, layer, settings))) return [];
    // By now it is likely: how long it takes is planned, for it is said.
    const [now, then] = [settings.scanAngle, turned].map((scanAngle) =>
      timeWith(prepared, layer, { ...settings, scanAngle }),
    );
    if (!isWorthwhile(now, 1 - then / now)) return [];
    const name = layer.layer.name;
    return [
      withMends(
        finding(
          'slow-scan',
          'notes',
          `${name} takes ${formatDuration(now)} by itself with its lines at ${settings.scanAngle}°, and ${formatDuration(then)} with lines at ${turned}°: fewer, longer lines take less turning.`,
          layer.placed.map(({ item }) => item),
          layer.layer.id,
        ),
        {
          words: `Lines at ${turned}°, saves ${formatDuration(now - then)}`,
          name: `lines at ${turned}° on ${name}`,
          isSafe: false,
          step: { kind: 'set', preparedId: layer.id, setting: 'scanAngle', value: turned },
        },
      ),
    ];
  });

function isWorthwhile(timeS: number, share: number): boolean {
  return share > leastShare && timeS * share > leastS;
}

/** About which share of its time a layer takes with its lines turned, by the boxes of what it fills. */
function roughShare(prepared: PreparedJob, layer: PreparedLayer, settings: LayerSettings): number {
  const { machine } = prepared;
  const { speedMmPerS, lineSpacingMm, scanAngle } = settings;
  const isUpright = scanAngle % 180 !== 0;
  const level = accelerationAlong(machine, 1, 0);
  const upright = accelerationAlong(machine, 0, 1);
  const cost = (along: number, across: number, acceleration: number) =>
    (across / lineSpacingMm) * (along / speedMmPerS + (2 * speedMmPerS) / acceleration);
  let [now, then] = [0, 0];
  for (const { pieces } of engravedFills(prepared, layer)) {
    for (const { bounds } of pieces) {
      const [width, height] = [boxWidth(bounds), boxHeight(bounds)];
      const byRows = cost(width, height, level);
      const byColumns = cost(height, width, upright);
      now += isUpright ? byColumns : byRows;
      then += isUpright ? byRows : byColumns;
    }
  }
  return now === 0 ? 1 : then / now;
}

/** How many seconds a layer takes by itself with other settings. */
function timeWith(prepared: PreparedJob, layer: PreparedLayer, settings: LayerSettings): number {
  const alone = { ...layer, applied: { ...layer.applied, settings } };
  const { steps } = planJob({ ...prepared, layers: [alone] });
  return steps.reduce((sum, { timeS }) => sum + timeS, 0);
}
