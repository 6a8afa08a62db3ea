import type { JobDocument, StartPoint, TabPlaces } from '../document/job.ts';
import type { Layer, LayerBurning } from '../document/layer.ts';
import type { Run } from '../document/run.ts';

/*
 * What the operator says of layers, of the order they burn in, and of runs: named edits, as in `edits.ts`.
 */

/** Adds a layer of the job's own, or changes one: a layer with the id of the key's stands in its place. */
export function setLayer(job: JobDocument, layer: Layer): JobDocument {
  const known = job.layers.some(({ id }) => id === layer.id);
  const layers = known ? job.layers.map((old) => (old.id === layer.id ? layer : old)) : [...job.layers, layer];
  return { ...job, layers };
}

/**
 * Puts everything of a layer on another: what was pinned to it or assigned to it, and the paints and items given,
 * which it had by the key. A layer of the job's own goes.
 *
 * @param paints the paints that the key puts on it
 */
export function mergeLayer(
  job: JobDocument,
  layerId: string,
  intoId: string,
  paints: readonly { readonly part: 'stroke' | 'fill'; readonly colour: string; readonly widthMm: number | null }[],
): JobDocument {
  if (layerId === intoId) return job;
  const assigned = job.assignments.map((known) => (known.layerId === layerId ? { ...known, layerId: intoId } : known));
  const said = new Set(assigned.map(({ part, colour, widthMm }) => `${part} ${colour} ${widthMm}`));
  const more = paints
    .filter(({ part, colour, widthMm }) => !said.has(`${part} ${colour} ${widthMm}`))
    .map(({ part, colour, widthMm }) => ({ part, colour, widthMm, layerId: intoId }));
  const pinned = job.drawing.items.some((item) => item.pinned === layerId);
  const { [layerId]: _, ...settings } = job.settings;
  const { [layerId]: __, ...burning } = job.burning;
  return {
    ...job,
    assignments: [...assigned, ...more],
    layers: job.layers.filter(({ id }) => id !== layerId),
    settings,
    burning,
    drawing: pinned
      ? {
          ...job.drawing,
          items: job.drawing.items.map((item) => (item.pinned === layerId ? { ...item, pinned: intoId } : item)),
        }
      : job.drawing,
  };
}

/** Says how a layer is filled and in which order it burns. */
export function setBurning(job: JobDocument, layerId: string, change: Partial<LayerBurning>): JobDocument {
  return { ...job, burning: { ...job.burning, [layerId]: { ...job.burning[layerId], ...change } } };
}

/** Puts the steps of the plan in an order, by their ids; none hands it back to the usual one. */
export function orderSteps(job: JobDocument, order: readonly string[]): JobDocument {
  return { ...job, order };
}

/** Numbers items by hand: the next number, or the number taken back. */
export function numberItem(job: JobDocument, itemId: string): JobDocument {
  const numbered = job.numbered.includes(itemId)
    ? job.numbered.filter((id) => id !== itemId)
    : [...job.numbered, itemId];
  return { ...job, numbered };
}

/** Takes back the order that was numbered by hand. */
export function clearNumbers(job: JobDocument): JobDocument {
  return job.numbered.length === 0 ? job : { ...job, numbered: [] };
}

/** Says where a closed outline starts. */
export function setStart(job: JobDocument, start: StartPoint): JobDocument {
  const others = job.starts.filter(({ itemId, subpath }) => itemId !== start.itemId || subpath !== start.subpath);
  return { ...job, starts: [...others, start] };
}

/** Says where tabs hold closed outlines; with none an outline has no tabs, whatever its layer says. */
export function placeTabs(job: JobDocument, placed: readonly TabPlaces[]): JobDocument {
  if (placed.length === 0) return job;
  const said = new Set(placed.map(({ itemId, subpath }) => `${subpath} ${itemId}`));
  const others = job.tabs.filter(({ itemId, subpath }) => !said.has(`${subpath} ${itemId}`));
  return { ...job, tabs: [...others, ...placed] };
}

/** Leaves it to the layers where tabs are. */
export function clearTabs(job: JobDocument): JobDocument {
  return job.tabs.length === 0 ? job : { ...job, tabs: [] };
}

/** Leaves it to the layer where the outlines of items start. */
export function clearStarts(job: JobDocument, ids: ReadonlySet<string>): JobDocument {
  const starts = job.starts.filter(({ itemId }) => !ids.has(itemId));
  return starts.length === job.starts.length ? job : { ...job, starts };
}

/**
 * Swaps figure and ground of items within a border: what it holds burns, and they do not. Items that are swapped
 * already are handed back first. The border is not burnt for it, and nothing is drawn twice.
 */
export function flipFill(
  job: JobDocument,
  id: string,
  itemIds: readonly string[],
  borderId: string,
  insetMm: number,
): JobDocument {
  const ids = itemIds.filter((itemId) => itemId !== borderId);
  if (ids.length === 0) return job;
  return { ...job, flips: [...unflip(job, new Set(ids)).flips, { id, itemIds: ids, borderId, insetMm }] };
}

/** Lets items be figures again. */
export function unflip(job: JobDocument, ids: ReadonlySet<string>): JobDocument {
  if (!job.flips.some(({ itemIds }) => itemIds.some((id) => ids.has(id)))) return job;
  const flips = job.flips
    .map((flip) => ({ ...flip, itemIds: flip.itemIds.filter((id) => !ids.has(id)) }))
    .filter(({ itemIds }) => itemIds.length > 0);
  return { ...job, flips };
}

/** Adds a run behind the others. */
export function addRun(job: JobDocument, run: Run): JobDocument {
  return { ...job, runs: [...job.runs, run] };
}

/** Changes a run. */
export function changeRun(job: JobDocument, runId: string, change: Partial<Omit<Run, 'id'>>): JobDocument {
  return { ...job, runs: job.runs.map((run) => (run.id === runId ? { ...run, ...change } : run)) };
}

/** Takes a run away; the last one stays. */
export function removeRun(job: JobDocument, runId: string): JobDocument {
  const runs = job.runs.filter(({ id }) => id !== runId);
  return runs.length === 0 || runs.length === job.runs.length ? job : { ...job, runs };
}

/** Puts a run one place earlier or later. */
export function moveRun(job: JobDocument, runId: string, delta: -1 | 1): JobDocument {
  const index = job.runs.findIndex(({ id }) => id === runId);
  const to = index + delta;
  if (index < 0 || to < 0 || to >= job.runs.length) return job;
  const runs = [...job.runs];
  [runs[index], runs[to]] = [runs[to], runs[index]];
  return { ...job, runs };
}

/** Switches a layer on or off in a run. */
export function switchLayer(job: JobDocument, layerId: string, on: boolean, runId = job.runs[0].id): JobDocument {
  return {
    ...job,
    runs: job.runs.map((run) => {
      if (run.id !== runId || run.off.includes(layerId) !== on) return run;
      return { ...run, off: on ? run.off.filter((id) => id !== layerId) : [...run.off, layerId] };
    }),
  };
}
