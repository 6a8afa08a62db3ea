import { type Item, type Operation, type Path, type PreparedJob, pathOf, Verb } from '@lambent/core';

/** An item ready to be drawn: its outline for the canvas, and the operation that it is drawn as. */
export interface SceneItem {
  readonly item: Item;
  readonly outline: Path2D;
  readonly operation: Operation | null;
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
  let at = 0;
  for (const verb of verbs) {
    if (verb === Verb.move) outline.moveTo(c[at], c[at + 1]);
    else if (verb === Verb.line) outline.lineTo(c[at], c[at + 1]);
    else if (verb === Verb.cubic) outline.bezierCurveTo(c[at], c[at + 1], c[at + 2], c[at + 3], c[at + 4], c[at + 5]);
    else outline.closePath();
    at += verb === Verb.cubic ? 6 : verb === Verb.close ? 0 : 2;
  }
  outlines.set(path, outline);
  return outline;
}

const scenes = new WeakMap<PreparedJob, readonly SceneItem[]>();

/** Everything to draw, from back to front; kept for as long as the job is not changed. */
export function sceneOf(prepared: PreparedJob): readonly SceneItem[] {
  let scene = scenes.get(prepared);
  if (!scene) {
    const { meaning, job } = prepared;
    const operationOf = new Map<Item, Operation>();
    for (const { id, operation } of meaning.layers) {
      for (const { item } of meaning.placed.get(id) ?? []) operationOf.set(item, operation);
    }
    scene = job.drawing.items.map((item) => ({
      item,
      outline: outlineFor(item),
      operation: operationOf.get(item) ?? null,
    }));
    scenes.set(prepared, scene);
  }
  return scene;
}

/** How many nodes there are to draw. */
export function nodesOf(scene: readonly SceneItem[]): number {
  return scene.reduce((sum, { item }) => sum + pathOf(item).verbs.length, 0);
}
