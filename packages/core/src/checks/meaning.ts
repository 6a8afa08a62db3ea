import { extentOf, type Meaning } from '../colours/derive.ts';
import type { Mark } from '../colours/key.ts';
import { kindChangeOf, type NearMiss, nearMisses } from '../colours/near-miss.ts';
import { boundsOf, type Item } from '../document/item.ts';
import type { Layer } from '../document/layer.ts';
import type { Mend } from '../mends/mend.ts';
import { engravesAreas, isBurnt } from '../operations/operations.ts';
import { nearItems } from '../plan/near-items.ts';
import { burntInGreys } from './fading.ts';
import { burntItems, type Check, countOf, finding, ifAny, withMends } from './finding.ts';
import { keptOnce } from './lines.ts';
import { uniteOverlaps } from './offers.ts';

/** Paints that neither the key nor the job gives a meaning. */
export const checkColours: Check = ({ meaning, key }) => {
  const undecided = meaning.paints.filter((use) => use.layerId === null);
  const near = new Map(nearMisses(undecided, key).map((miss) => [miss.paint, miss]));
  const open = new Set(meaning.undecided.map((item) => item.id));
  return undecided.flatMap((use) => {
    const ids = use.itemIds.filter((id) => open.has(id));
    if (ids.length === 0) return [];
    const miss = near.get(use);
    const name = miss && meaning.layers.find(({ id }) => id === miss.layerId)?.name;
    const nearly = !miss
      ? ''
      : miss.kind === 'converted'
        ? ` It is what the ${miss.meant} of ${name} becomes when it goes through print colours: the Colours stage offers to treat it as that.`
        : ` It is nearly the ${miss.meant} of ${name}, ${miss.distance.toFixed(1)} away: the Colours stage offers to treat it as that.`;
    const note = meaning.layers.find(({ operation }) => operation === 'note');
    const what = use.part === 'fill' ? `the fill ${use.colour}` : `${use.colour} at ${use.widthMm} mm`;
    const found = finding(
      'colour-without-meaning',
      'blocks',
      `${countOf(ids.length, 'item has', 'items have')} ${what}, which means nothing in “${key.name}” and would not be burnt.${nearly} Say what it means; choose Note if it should not burn.`,
    );
    return [
      withMends(
        { ...found, itemIds: ids },
        miss ? treatedAs(meaning, miss) : null,
        note ? { ...treatAs(use, note), words: 'Note, not burnt' } : null,
      ),
    ];
  });
};

/** Takes a paint for the one that it is nearly; null where that makes a line of an area, or the like: that is asked with a picture. */
function treatedAs({ layers }: Meaning, miss: NearMiss): Mend | null {
  const layer = layers.find(({ id }) => id === miss.layerId);
  if (!layer || kindChangeOf(miss, layers) !== null) return null;
  return { ...treatAs(miss.paint, layer), isSafe: true };
}

function treatAs({ part, colour, widthMm }: Mark, { id, name }: Layer): Mend {
  return {
    words: `Treat as ${name}`,
    name: `treat ${colour} as ${name}`,
    isSafe: false,
    step: { kind: 'treat as', mark: { part, colour, widthMm }, layerId: id },
  };
}

/** A job with nothing on a layer that burns, and layers that are switched off. */
export const checkBurnable: Check = (prepared) => {
  const { meaning, run, job } = prepared;
  const off = meaning.layers.filter(
    ({ id, operation }) => run.off.includes(id) && isBurnt(operation) && (meaning.placed.get(id) ?? []).length > 0,
  );
  return [
    ...(burntItems(prepared).length === 0 && prepared.meaning.undecided.length === 0
      ? [
          finding(
            'nothing-to-burn',
            'blocks',
            'Nothing in this job burns yet. Bring in a drawing and say what its colours mean.',
          ),
        ]
      : []),
    ...off.map(({ id, name }) => {
      const elsewhere = job.runs.filter((other) => !other.off.includes(id)).map((other) => other.name);
      return elsewhere.length > 0
        ? finding('layer-off', 'notes', `${name} burns in ${elsewhere.join(' and ')}, not in ${run.name}.`, [], id)
        : withMends(
            finding(
              'layer-off',
              'notes',
              `${name} is switched off and is left out of ${job.runs.length > 1 ? 'every run' : 'this run'}.`,
              [],
              id,
            ),
            {
              words: `Switch ${name} on`,
              name: `switch ${name} on`,
              isSafe: false,
              step: { kind: 'switch on', layerId: id, runId: run.id },
            },
          );
    }),
  ];
};

/** Of a job with several runs: layers with items that burn in none of them. */
export const checkRuns: Check = ({ job, meaning }) => {
  if (job.runs.length < 2) return [];
  return meaning.layers.flatMap(({ id, name, operation }) => {
    const items = (meaning.placed.get(id) ?? []).map(({ item }) => item);
    if (!isBurnt(operation) || items.length === 0) return [];
    const left = items.filter(
      (item) => !job.runs.some(({ off, only }) => !off.includes(id) && (only === null || only.includes(item.id))),
    );
    return ifAny(left, () =>
      finding(
        'layer-in-no-run',
        'warns',
        `${countOf(left.length, 'item', 'items')} on ${name} ${left.length === 1 ? 'burns' : 'burn'} in none of the ${job.runs.length} runs. Put ${left.length === 1 ? 'it' : 'them'} in one, or on a Note or Guide layer.`,
        left,
        id,
      ),
    );
  });
};

/** Paints that are hardly to be told apart and mean different things. */
export const checkNearMisses: Check = ({ meaning, key }) =>
  nearMisses(meaning.paints, key)
    .filter(({ kind }) => kind === 'alike')
    .map((miss) => {
      const { paint, meant, layerId, distance } = miss;
      const name = meaning.layers.find(({ id }) => id === layerId)?.name ?? layerId;
      const items = countOf(paint.itemIds.length, 'item is', 'items are');
      const sentence = `${items} ${paint.colour}, hardly to be told from ${meant} (${distance.toFixed(1)} away), which is on ${name}. If it is the same, treat it as ${name} in the Colours stage.`;
      const found = { ...finding('near-miss', 'warns', sentence, [], layerId), itemIds: paint.itemIds };
      return withMends(found, treatedAs(meaning, miss));
    });

/** What burns after the cut that holds it, because the operator ordered it so. */
export const checkOrder: Check = (prepared, plan) => {
  if (plan.outOfOrder.length === 0) return [];
  const ids = plan.outOfOrder.map(({ itemId }) => itemId);
  const sentence = `${countOf(ids.length, 'item burns', 'items burn')} after the outline around ${ids.length === 1 ? 'it' : 'them'} is cut: the piece may have shifted or dropped by then, and the burn lands beside its place. Put ${ids.length === 1 ? 'it' : 'them'} before that cut in the burn strip.`;
  const byHand = prepared.layers.flatMap(({ layer, burning }) =>
    burning.order === 'as-drawn' || burning.order === 'by-hand' ? [layer.id] : [],
  );
  return [
    withMends(
      { ...finding('order-broken', 'warns', sentence), itemIds: ids },
      {
        words: 'Burn in the usual order',
        name: 'usual order of burning',
        isSafe: false,
        step: { kind: 'usual order', layerIds: [...new Set(byHand)] },
      },
    ),
  ];
};

/** Engraved outlines that lie on each other exactly, so that together they burn nothing. */
export const checkCancelling: Check = ({ layers }) =>
  layers.flatMap(({ layer, on, placed, burning }) => {
    if (!engravesAreas(layer.operation) || !on || burning.overlaps === 'unite') return [];
    const seen = new Map<string, Item>();
    const twins = new Set<Item>();
    for (const item of nearItems(placed.map(({ item }) => item)).near) {
      const name = fingerprint(item);
      if (name === null) continue;
      const twin = seen.get(name);
      if (twin) {
        twins.add(twin);
        twins.add(item);
      } else seen.set(name, item);
    }
    const items = [...twins];
    return ifAny(items, () =>
      withMends(
        finding(
          'fills-cancel',
          'warns',
          `${items.length} items on ${layer.name} lie on each other exactly, and where two overlap neither burns. Remove one of each, or have overlaps on ${layer.name} unite.`,
          items,
          layer.id,
        ),
        keptOnce(items),
        uniteOverlaps(layer),
      ),
    );
  });

/** The same for items whose outlines lie on each other; null for those that enclose nothing. */
function fingerprint(item: Item): string | null {
  const { minX, minY, maxX, maxY } = boundsOf(item);
  const { lengthMm, areaMm2 } = extentOf([item]);
  if (areaMm2 === 0) return null;
  return [minX, minY, maxX, maxY, lengthMm, areaMm2].map((value) => value.toFixed(2)).join(' ');
}

/** Swaps of figure and ground whose border is gone. */
export const checkFlips: Check = ({ job }) => {
  if (job.flips.length === 0) return [];
  const ids = new Set(job.drawing.items.map(({ id }) => id));
  const lost = job.flips.filter(({ borderId }) => !ids.has(borderId));
  if (lost.length === 0) return [];
  return [
    {
      ...finding(
        'border-gone',
        'warns',
        'Figure and ground are swapped within a border that is no longer there: the figures burn as they are. Choose another border, or let them be.',
      ),
      itemIds: lost.flatMap(({ itemIds }) => itemIds).filter((id) => ids.has(id)),
    },
  ];
};

/** What is in the job and will not burn without anybody having said so in this job. */
export const checkUnseen: Check = ({ job, meaning }) => {
  const hidden = job.drawing.items.filter((item) => item.hidden);
  const shown = job.drawing.items.filter((item) => !item.hidden && item.shape.kind === 'picture');
  const pictures = shown.filter(
    (item) => ![...meaning.placed.values()].some((list) => list.some((entry) => entry.item === item)),
  );
  return [
    ...ifAny(hidden, () =>
      withMends(
        finding(
          'hidden-parts',
          'notes',
          `${countOf(hidden.length, 'part is hidden and does', 'parts are hidden and do')} not burn. The Art drawer lists what is hidden and brings it in.`,
          hidden,
        ),
        {
          words: hidden.length === 1 ? 'Bring it in' : 'Bring them in',
          name: 'bring in what is hidden',
          isSafe: false,
          step: { kind: 'bring in', itemIds: hidden.map(({ id }) => id) },
        },
        {
          words: 'Remove for good',
          name: 'remove what is hidden',
          isSafe: false,
          step: { kind: 'remove', itemIds: hidden.map(({ id }) => id) },
        },
      ),
    ),
    ...ifAny(pictures, () =>
      withMends(
        finding(
          'picture-not-burnt',
          'warns',
          `${countOf(pictures.length, 'picture is shown and does', 'pictures are shown and do')} not burn: no layer burns ${pictures.length === 1 ? 'its' : 'their'} greys.`,
          pictures,
        ),
        burntInGreys(meaning, pictures),
      ),
    ),
  ];
};
