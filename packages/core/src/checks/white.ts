import { colourDistance, lightnessOf } from '../colours/key.ts';
import { boundsOf, type Colour, type Item, pathOf } from '../document/item.ts';
import { areaOf, intersectAreas, sizeOfArea } from '../geometry/areas/area.ts';
import { indexBoxes } from '../geometry/paths/box-index.ts';
import { fillsAreas } from '../operations/operations.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { type Check, countOf, finding, withMends } from './finding.ts';

/** Lighter than this (CIELAB) and hardly coloured is white. */
const lightest = 93;
const leastChroma = 6;
/** As near as this to the tone of the stock (CIEDE2000) is the colour of paper. */
const nearTone = 4;
/** Less overlap than this, in mm², is none. */
const leastOverlap = 0.01;

/** White shapes, or such as the stock looks, over what is engraved, that nobody has put on a layer. */
export const checkWhite: Check = (prepared) => {
  const filled = new Map<Item, string>();
  for (const { layer, placed } of prepared.layers)
    if (fillsAreas(layer.operation)) for (const { item } of placed) filled.set(item, layer.id);
  const inFills = new Set([...filled.keys()].map(({ id }) => id));
  const whites = prepared.job.drawing.items.flatMap((item) =>
    isWhiteOver(prepared, item) && !inFills.has(item.id) ? [prepared.burntAt(item)] : [],
  );
  if (whites.length === 0 || filled.size === 0) return [];
  const places = new Map(prepared.job.drawing.items.map((item, place) => [item.id, place]));
  const under = [...filled.keys()];
  const index = indexBoxes(under.map(boundsOf));
  const over: Item[] = [];
  const below = new Set<Item>();
  for (const white of whites) {
    const { minX, minY, maxX, maxY } = boundsOf(white);
    const covered = (index?.search(minX, minY, maxX, maxY) ?? [])
      .map((i) => under[i])
      .filter((item) => (places.get(item.id) ?? 0) < (places.get(white.id) ?? 0) && overlaps(white, item));
    if (covered.length === 0) continue;
    over.push(white);
    for (const item of covered) below.add(item);
  }
  if (over.length === 0) return [];
  const itemIds = over.map(({ id }) => id);
  const isOne = over.length === 1;
  const note = prepared.meaning.layers.find(({ operation }) => operation === 'note');
  const [engraved] = [...below].map((item) => filled.get(item) as string);
  return [
    withMends(
      finding(
        'white-over',
        'warns',
        `${countOf(over.length, 'white shape lies', 'white shapes lie')} over what is engraved, and ${isOne ? 'does' : 'do'} not burn: what is under ${isOne ? 'it' : 'them'} burns all through. Say whether ${isOne ? 'it is a hole' : 'they are holes'}.`,
        over,
      ),
      note
        ? {
            words: isOne ? 'Make it a hole' : 'Make them holes',
            name: isOne ? 'make a white shape a hole' : 'make white shapes holes',
            isSafe: false,
            step: { kind: 'knock out', itemIds, underIds: [...below].map(({ id }) => id), layerId: note.id },
          }
        : null,
      note
        ? {
            words: isOne ? 'Leave it out' : 'Leave them out',
            name: 'leave white shapes out',
            isSafe: false,
            step: { kind: 'put on layer', itemIds, layerId: note.id },
          }
        : null,
      {
        words: isOne ? 'Burn it' : 'Burn them',
        name: 'burn white shapes',
        isSafe: false,
        step: { kind: 'put on layer', itemIds, layerId: engraved },
      },
    ),
  ];
};

function isWhiteOver({ material, parked }: PreparedJob, { paint, hidden, pinned, shape, id }: Item): boolean {
  if (hidden || pinned !== null || paint.fill === null || shape.kind === 'picture' || parked.has(id)) return false;
  return isPaper(paint.fill, material?.tone ?? null);
}

/** Whether a colour looks like paper, or like the stock of a tone. Of thousands of items most have one of few colours. */
function isPaper(colour: Colour, tone: Colour | null): boolean {
  const name = `${colour} ${tone}`;
  let known = papers.get(name);
  if (known === undefined) {
    const { lightness, chroma } = lightnessOf(colour);
    const isWhite = lightness > lightest && chroma < leastChroma;
    known = isWhite || (tone !== null && colourDistance(tone, colour) < nearTone);
    if (papers.size > mostColours) papers.clear();
    papers.set(name, known);
  }
  return known;
}

const mostColours = 5000;
const papers = new Map<string, boolean>();

function overlaps(a: Item, b: Item): boolean {
  const [first, second] = [a, b].map((item) => areaOf(pathOf(item), item.fillRule));
  return sizeOfArea(intersectAreas(first, second)) > leastOverlap;
}
