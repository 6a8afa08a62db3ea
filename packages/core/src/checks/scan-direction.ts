import type { LayerBurning } from '../document/layer.ts';
import { boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { accelerationAlong } from '../machine/machine.ts';
import { engravesAreas } from '../operations/operations.ts';
import { engravedFills } from '../plan/fill.ts';
import { planJob } from '../plan/plan.ts';
import type { PreparedJob, PreparedLayer } from '../plan/prepare.ts';
import { turnedFrom } from '../plan/raster.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { formatDuration } from '../units/duration.ts';
import { type Check, finding, withMends } from './finding.ts';

/** Less than this is not worth a word: a share of the step's time, and seconds. */
const leastShare = 0.2;
const leastS = 20;

/** Turning lines piece by piece is offered where it saves so much more than turning them all, as a share. */
const leastMore = 0.05;

/** Engravings that burn much sooner with their lines turned by a quarter: all of them, or those of some pieces. */
export const checkScanDirection: Check = (prepared, { steps }) =>
  prepared.layers.flatMap((layer) => {
    const { settings } = layer.applied;
    const step = steps.find(({ preparedId }) => preparedId === layer.id);
    if (!step || !settings || !engravesAreas(layer.layer.operation) || layer.burning.scanTurns !== 'same') return [];
    const { scanAngle } = settings;
    const turned = turnedFrom(scanAngle);
    if (!isWorthwhile(step.timeS, 1 - roughShare(prepared, layer, settings))) return [];
    // By now it is likely: how long it takes is planned, for it is said.
    const now = timeWith(prepared, layer, {});
    const then = timeWith(prepared, layer, { settings: { ...settings, scanAngle: turned } });
    const byPiece = timeWith(prepared, layer, { burning: { ...layer.burning, scanTurns: 'sooner' } });
    const name = layer.layer.name;
    const isByPiece = byPiece < (1 - leastMore) * then;
    if (!isWorthwhile(now, 1 - Math.min(then, byPiece) / now)) return [];
    const instead = isByPiece
      ? `${formatDuration(byPiece)} with each piece at ${scanAngle}° or ${turned}°, where it burns sooner`
      : `${formatDuration(then)} with lines at ${turned}°`;
    return [
      withMends(
        finding(
          'slow-scan',
          'notes',
          `${name} takes ${formatDuration(now)} by itself with its lines at ${scanAngle}°, and ${instead}: fewer, longer lines take less turning.`,
          layer.placed.map(({ item }) => item),
          layer.layer.id,
        ),
        isByPiece
          ? {
              words: `Each piece by itself, saves ${formatDuration(now - byPiece)}`,
              name: `lines turned by piece on ${name}`,
              isSafe: false,
              step: { kind: 'turn lines by piece', layerId: layer.layer.id },
            }
          : null,
        isWorthwhile(now, 1 - then / now)
          ? {
              words: `Lines at ${turned}°, saves ${formatDuration(now - then)}`,
              name: `lines at ${turned}° on ${name}`,
              isSafe: false,
              step: { kind: 'set', preparedId: layer.id, setting: 'scanAngle', value: turned },
            }
          : null,
      ),
    ];
  });

function isWorthwhile(timeS: number, share: number): boolean {
  return share > leastShare && timeS * share > leastS;
}

/** About which share of its time a layer takes with its lines turned, all or by piece, by the boxes of what it fills. */
function roughShare(prepared: PreparedJob, layer: PreparedLayer, settings: LayerSettings): number {
  const { machine } = prepared;
  const { speedMmPerS, lineSpacingMm, scanAngle } = settings;
  const isUpright = scanAngle % 180 !== 0;
  const level = accelerationAlong(machine, 1, 0);
  const upright = accelerationAlong(machine, 0, 1);
  const cost = (along: number, across: number, acceleration: number) =>
    (across / lineSpacingMm) * (along / speedMmPerS + (2 * speedMmPerS) / acceleration);
  let [now, then, byPiece] = [0, 0, 0];
  for (const { pieces } of engravedFills(prepared, layer)) {
    for (const { bounds } of pieces) {
      const [width, height] = [boxWidth(bounds), boxHeight(bounds)];
      const byRows = cost(width, height, level);
      const byColumns = cost(height, width, upright);
      now += isUpright ? byColumns : byRows;
      then += isUpright ? byRows : byColumns;
      byPiece += Math.min(byRows, byColumns);
    }
  }
  return now === 0 ? 1 : Math.min(then, byPiece) / now;
}

/** How many seconds a layer takes by itself with other settings, or filled otherwise. */
function timeWith(
  prepared: PreparedJob,
  layer: PreparedLayer,
  {
    settings = layer.applied.settings,
    burning = layer.burning,
  }: { settings?: LayerSettings | null; burning?: LayerBurning },
): number {
  const alone = { ...layer, burning, applied: { ...layer.applied, settings } };
  const { steps } = planJob({ ...prepared, layers: [alone] });
  return steps.reduce((sum, { timeS }) => sum + timeS, 0);
}
