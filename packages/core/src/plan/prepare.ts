import { deriveMeaning, type Meaning, type Placed } from '../colours/derive.ts';
import { type ColourKey, keyInShop } from '../colours/key.ts';
import { boundsOf, type Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { type Layer, type LayerBurning, usualBurning } from '../document/layer.ts';
import type { PixelsOf } from '../document/pixels.ts';
import type { Run } from '../document/run.ts';
import { isOnSheetOf, sheetsInRun } from '../document/run-sheets.ts';
import { type Sheet, sheetUnder } from '../document/sheet.ts';
import { boxesMeet } from '../geometry/paths/box.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { gather } from '../lists/gather.ts';
import { bedBox, type Machine } from '../machine/machine.ts';
import { isBurnt } from '../operations/operations.ts';
import { type Material, thicknessOf } from '../recipes/book/material.ts';
import type { Shop } from '../recipes/book/shop.ts';
import { type AppliedSettings, applyRecipe, basisFor } from '../recipes/in-force/apply.ts';
import { type Beyond, beyondMachine } from '../settings/settings.ts';
import { asDrawn, type Landed, placeRun } from './landing.ts';

/**
 * A layer with what it will burn with, and whether it can. Of several materials on the bed, a layer stands here once
 * for each that it has items on.
 */
export interface PreparedLayer {
  /** The layer's id; for another material than the first sheet's, `layer@material`. Settings by hand are kept under it. */
  readonly id: string;
  readonly layer: Layer;
  readonly material: Material | null;
  readonly burning: LayerBurning;
  /** What of the layer burns in this run on this material, where the run burns it. */
  readonly placed: readonly Placed[];
  readonly applied: AppliedSettings;
  /** What of its settings the machine cannot do. */
  readonly beyond: readonly Beyond[];
  /** Switched on in this run. */
  readonly on: boolean;
  /** Switched on, has items, and has settings that the machine can do. */
  readonly burns: boolean;
}

/** A job together with everything of the shop that it uses: what plan and checks go by. */
export interface PreparedJob {
  readonly job: JobDocument;
  readonly machine: Machine;
  readonly key: ColourKey;
  /** The run that is prepared. */
  readonly run: Run;
  /** The sheets that lie on the bed in this run, where they lie then. */
  readonly sheets: readonly Sheet[];
  /** What the first of them is of; null when there is no sheet. */
  readonly material: Material | null;
  readonly meaning: Meaning;
  readonly layers: readonly PreparedLayer[];
  /** Takes an item from where it is drawn to where this run burns it, in bed mm. */
  readonly burntAt: (item: Item) => Item;
  readonly landed: Landed;
  readonly pixelsOf: PixelsOf;
  /** The items, by id, that are parked beside the bed and burn in no run. */
  readonly parked: ReadonlySet<string>;
}

/** Which run, and where the head stands, for runs that land there. */
export interface RunChoice {
  /** The first one where none is named, or the job has no such run. */
  readonly runId?: string;
  /** In bed mm. */
  readonly head?: Point | null;
}

/** What a job needs besides the shop to be planned: its pictures unpacked, as far as they burn. */
export interface JobAssets {
  readonly pixelsOf: PixelsOf;
}

const noAssets: JobAssets = { pixelsOf: () => null };

/**
 * Looks up a job's machine, key and material in the shop. Derives what each item means, and what each layer burns with
 * in a run. A machine or key that the shop no longer has is replaced by its first one.
 *
 * @throws RangeError when the shop has no machine or no key
 */
export function prepareJob(
  job: JobDocument,
  shop: Pick<Shop, 'machines' | 'keys' | 'materials'>,
  { runId, head = null }: RunChoice = {},
  { pixelsOf }: JobAssets = noAssets,
): PreparedJob {
  const machine = shop.machines.find(({ id }) => id === job.machineId) ?? shop.machines[0];
  const key = keyInShop(shop.keys, job.keyId);
  if (!machine || !key) throw new RangeError('prepareJob: the shop needs at least one machine and one colour key');
  const run = job.runs.find(({ id }) => id === runId) ?? job.runs[0];
  const materialOf = (sheet: Sheet | undefined) => shop.materials.find(({ id }) => id === sheet?.materialId) ?? null;
  const sheets = sheetsInRun(job, run);
  const material = materialOf(sheets[0]);
  // In every run, settings by hand are those of one material.
  const mainMaterial = materialOf(job.sheets[0]);
  const meaning = deriveMeaning(job, key);
  const only = run.only && new Set(run.only);
  const parked = parkedBeside(job, machine);
  const isOnIts = isOnSheetOf(job, run);
  const isIn = ({ item }: Placed) => !parked.has(item.id) && (only?.has(item.id) ?? true) && (isOnIts?.(item) ?? true);
  const inRun = (placed: readonly Placed[]) => (only || isOnIts || parked.size > 0 ? placed.filter(isIn) : placed);
  const itemsOfRun = () =>
    meaning.layers.flatMap(({ id, operation }) =>
      isBurnt(operation) && !run.off.includes(id) ? inRun(meaning.placed.get(id) ?? []).map(({ item }) => item) : [],
    );
  const { burntAt, landed } = placeRun({ job, machine, run, head, burnt: itemsOfRun });
  // Of several sheets of one material, the thickest has to be gone through.
  const thickest = (stock: Material | null) => {
    const measured = sheets.filter(({ materialId }) => materialId === stock?.id);
    return measured.length > 0 && stock
      ? Math.max(...measured.map(({ thicknessMm }) => thicknessMm ?? thicknessOf(stock)))
      : undefined;
  };
  const several = new Set(sheets.map(({ materialId }) => materialId)).size > 1;
  const layers = meaning.layers.flatMap((layer): PreparedLayer[] => {
    const all = inRun(meaning.placed.get(layer.id) ?? []);
    const burning = { ...usualBurning, ...layer.burning, ...job.burning[layer.id] };
    const burnt = isBurnt(layer.operation);
    const on = !run.off.includes(layer.id);
    const layerOn = (stock: Material | null, placed: readonly Placed[]): PreparedLayer => {
      const id = stock === mainMaterial || stock === null ? layer.id : `${layer.id}@${stock.id}`;
      const choice = { lensId: job.lensId, variant: job.variants[id] ?? job.variants[layer.id] };
      const basis = basisFor(shop, { material: stock, thicknessMm: thickest(stock) }, machine, layer.operation, choice);
      const applied = applyRecipe(basis, layer, job.settings[id]);
      const beyond = burnt && applied.settings ? beyondMachine(applied.settings, layer.operation, machine) : [];
      const able = applied.settings !== null && beyond.length === 0 && !stock?.forbidden;
      const moved = burntAt === asDrawn ? placed : placed.map((entry) => ({ ...entry, item: burntAt(entry.item) }));
      return {
        id,
        layer,
        material: stock,
        burning,
        placed: moved,
        applied,
        beyond,
        on,
        burns: burnt && on && placed.length > 0 && able,
      };
    };
    if (!several) return [layerOn(material, all)];
    // Each piece burns with the recipe of the sheet that it lies on; what lies on none, with the first one's.
    const byMaterial = new Map<Material | null, Placed[]>();
    for (const entry of all) {
      const stock = materialOf(sheetUnder(job.sheets, entry.item) ?? sheets[0]);
      gather(byMaterial, stock, entry);
    }
    if (byMaterial.size === 0) return [layerOn(material, [])];
    return [...byMaterial].map(([stock, placed]) => layerOn(stock, placed));
  });
  return { job, machine, key, run, sheets, material, meaning, layers, burntAt, landed, pixelsOf, parked };
}

/** Items that are parked, and lie wholly beside the bed. */
function parkedBeside({ drawing }: JobDocument, machine: Machine): ReadonlySet<string> {
  const bed = bedBox(machine);
  return new Set(
    drawing.items.flatMap((item) => (item.parked && !item.hidden && !boxesMeet(bed, boundsOf(item)) ? [item.id] : [])),
  );
}

/** The ids of the pictures that burn in a run: whoever plans it has to have their pixels at hand. */
export function picturesToBurn({ layers }: Pick<PreparedJob, 'layers'>): Set<string> {
  return new Set(
    layers.flatMap(({ burns, placed }) =>
      burns ? placed.flatMap(({ item: { shape } }) => (shape.kind === 'picture' ? [shape.pictureId] : [])) : [],
    ),
  );
}
