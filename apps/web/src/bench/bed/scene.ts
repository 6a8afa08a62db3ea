import type { Meaning } from '@lambent/core/colours';
import { boundsOf, type Item, isOnSheetOf, pathOf } from '@lambent/core/document';
import { type Box, type Path, Verb } from '@lambent/core/geometry';
import { engravesAreas, type Operation } from '@lambent/core/operations';
import { engravedFills, engravedPath, hasOwnFill, type PreparedJob, type PreparedLayer } from '@lambent/core/plan';
import { otherFillingsIn } from '../state/fillings.ts';

/** An item ready to be drawn: its outline for the canvas, and the operation that it is drawn as. */
export interface SceneItem {
  readonly item: Item;
  readonly outline: Path2D;
  readonly bounds: Box;
  /** How its line is drawn; engrave where it is engraved and nothing else. */
  readonly operation: Operation | null;
  /** What burns its inside, whatever its line is. */
  readonly filledBy: Operation | null;
  /** Whether its layer's fill shows what of it burns: then only its outline is drawn. */
  readonly filledByLayer: boolean;
  /** Whether it is parked beside the bed, or lies where another run fills the same places: it does not burn. */
  readonly parked: boolean;
}

const outlines = new WeakMap<Path, Path2D>();

/** An item's outline for the canvas, in bed mm. */
export function outlineFor(item: Item): Path2D {
  return pathToCanvas(pathOf(item));
}

/** A path for the canvas; kept for as long as the path is. */
export function pathToCanvas(path: Path): Path2D {
  let outline = outlines.get(path);
  if (outline) return outline;
  outline = new Path2D();
  const { verbs, coords: c } = path;
  let index = 0;
  for (const verb of verbs) {
    if (verb === Verb.move) outline.moveTo(c[index], c[index + 1]);
    else if (verb === Verb.line) outline.lineTo(c[index], c[index + 1]);
    else if (verb === Verb.cubic)
      outline.bezierCurveTo(c[index], c[index + 1], c[index + 2], c[index + 3], c[index + 4], c[index + 5]);
    else outline.closePath();
    index += verb === Verb.cubic ? 6 : verb === Verb.close ? 0 : 2;
  }
  outlines.set(path, outline);
  return outline;
}

/** An engrave layer that is filled otherwise than outline by outline: what it burns, by its shares of power. */
export interface SceneFill {
  readonly outline: Path2D;
  readonly power: number;
  readonly operation: Operation;
}

/** Everything to draw, from back to front. */
export interface Scene {
  readonly items: readonly SceneItem[];
  readonly fills: readonly SceneFill[];
}

const scenes = new WeakMap<PreparedJob, Map<boolean, Scene>>();

/**
 * Everything to draw; kept for as long as the job is not changed.
 * @param asBurnt where the run burns it, which may be mirrored or moved; else as it is drawn
 */
export function sceneOf(prepared: PreparedJob, asBurnt: boolean): Scene {
  let known = scenes.get(prepared);
  if (!known) {
    known = new Map();
    scenes.set(prepared, known);
  }
  let scene = known.get(asBurnt);
  if (!scene) {
    scene = makeScene(prepared, asBurnt);
    known.set(asBurnt, scene);
  }
  return scene;
}

/** What is shown faintly, by id: what is parked, and what other runs fill the same places with. */
function asideOf(prepared: PreparedJob): ReadonlySet<string> {
  const others = otherFillingsIn(prepared);
  return others.size === 0 ? prepared.parked : new Set([...prepared.parked, ...others]);
}

/** The last scene of items as they are drawn, with no layer's fill among them. */
let last: { meaning: Meaning; drawn: readonly Item[]; items: readonly SceneItem[] } | null = null;

/** The last scene with changed items in the place of what they were, where all of them mean what they meant; else null. */
function patched(prepared: PreparedJob, drawn: readonly Item[]): SceneItem[] | null {
  if (last?.meaning.paints !== prepared.meaning.paints) return null;
  const aside = asideOf(prepared);
  const { drawn: before, items } = last;
  return drawn.map((item, i) => {
    const isParked = aside.has(item.id);
    if (item === before[i] && items[i].parked === isParked) return items[i];
    return sceneItem(item, items[i], isParked);
  });
}

function makeScene(prepared: PreparedJob, asBurnt: boolean): Scene {
  const { meaning, job, run } = prepared;
  // Fills are worked out where the run burns them: elsewhere the outlines speak for themselves.
  const inPlace = asBurnt || (!run.mirrored && run.landing.kind === 'as-drawn');
  const special = inPlace
    ? prepared.layers.filter(
        ({ layer, ...one }) => engravesAreas(layer.operation) && hasOwnFill(prepared, { layer, ...one }),
      )
    : [];
  const { items: drawn } = job.drawing;
  if (special.length === 0 && !asBurnt) {
    const items = patched(prepared, drawn) ?? itemsOf(prepared, asBurnt, special);
    last = { meaning, drawn, items };
    return { items, fills: [] };
  }
  return {
    items: itemsOf(prepared, asBurnt, special),
    fills: special.flatMap((layer) =>
      engravedFills(prepared, layer).map((fill) => ({
        outline: pathToCanvas(engravedPath(fill)),
        power: fill.power,
        operation: layer.layer.operation,
      })),
    ),
  };
}

/** @param special the layers whose fills show what of them burns */
function itemsOf(prepared: PreparedJob, asBurnt: boolean, special: readonly PreparedLayer[]): SceneItem[] {
  const { meaning, job } = prepared;
  // Each layer has its items in drawing order, as the drawing has: they are gone through side by side.
  const lists = meaning.layers.map(({ id, operation }) => ({
    operation,
    fills: engravesAreas(operation),
    placed: meaning.placed.get(id) ?? [],
    next: 0,
  }));
  const meant = (item: Item) => {
    let operation: Operation | null = null;
    let filledBy: Operation | null = null;
    for (const list of lists) {
      if (list.placed[list.next]?.item !== item) continue;
      list.next++;
      if (list.fills) filledBy = list.operation;
      if (!list.fills || operation === null) operation = list.operation;
    }
    return { operation, filledBy };
  };
  const inFill = new Set(special.flatMap(({ placed }) => placed.map(({ item }) => item.id)));
  // What this run does not burn stays where it is drawn.
  const burns = new Set(
    asBurnt ? prepared.layers.flatMap(({ on, placed }) => (on ? placed.map(({ item }) => item.id) : [])) : [],
  );
  // What is on sheets that do not lie there in this run is not there either.
  const isThere = asBurnt ? isOnSheetOf(job, prepared.run) : null;
  const aside = asideOf(prepared);
  return job.drawing.items.flatMap((drawn) => {
    const item = burns.size > 0 && burns.has(drawn.id) ? prepared.burntAt(drawn) : drawn;
    const filledByLayer = inFill.size > 0 && inFill.has(drawn.id);
    const { operation, filledBy } = meant(drawn);
    if (isThere?.(drawn) === false) return [];
    return sceneItem(item, { operation, filledBy, filledByLayer }, aside.has(drawn.id));
  });
}

const sceneItems = new WeakMap<Item, SceneItem>();

/** An item to be drawn; the same one as long as it is drawn alike, so that what changed is seen at a glance. */
function sceneItem(
  item: Item,
  { operation, filledBy, filledByLayer }: Pick<SceneItem, 'operation' | 'filledBy' | 'filledByLayer'>,
  parked: boolean,
): SceneItem {
  const known = sceneItems.get(item);
  const isSame =
    known?.operation === operation &&
    known.filledBy === filledBy &&
    known.filledByLayer === filledByLayer &&
    known.parked === parked;
  if (isSame) return known;
  const made = { item, outline: outlineFor(item), bounds: boundsOf(item), operation, filledBy, filledByLayer, parked };
  sceneItems.set(item, made);
  return made;
}
