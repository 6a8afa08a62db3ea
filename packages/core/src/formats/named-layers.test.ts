import { describe, expect, test } from '@jest/globals';
import { boundsOf, type Item } from '../document/item.ts';
import { type JobDocument, newJob } from '../document/job.ts';
import type { Layer } from '../document/layer.ts';
import type { Shape } from '../document/shape.ts';
import { outlineOf } from '../document/shapes.ts';
import { pinItems } from '../edits/items.ts';
import { setLayer } from '../edits/layers.ts';
import { codesOf, dxf, idFor, testTools } from '../fixtures/files.ts';
import { item, jobWith, shop } from '../fixtures/shop.ts';
import { identity } from '../geometry/paths/matrix.ts';
import { prepareJob } from '../plan/prepare.ts';
import { acceptArrival, rereadArrival } from './arrive.ts';
import { writeDxf } from './dxf/write.ts';
import { gatherOutgoing, type Outgoing } from './outgoing.ts';
import { writePdf } from './pdf/write.ts';
import { readDrawingFile } from './read.ts';
import { writeSvg } from './svg/write.ts';

const page = { minX: 0, minY: 0, maxX: 300, maxY: 200 };

describe('layers', () => {
  const star: Shape = { kind: 'polygon', cx: 50, cy: 50, radius: 20, sides: 5, inner: 0.4, turn: 0 };
  const at = (x: number, more: Partial<Item>): Item =>
    item(outlineOf(star), 'cut', { matrix: [1, 0, 0, 1, x, 0], ...more });
  const fine: Layer = { id: 'own-1', name: 'Fine: lines', operation: 'score' };
  const letters = { stroke: null, strokeWidthMm: 0, fill: '#123456' };
  const job = setLayer(
    jobWith([
      at(0, {}),
      at(50, { pinned: 'score' }),
      at(100, { pinned: 'engrave' }),
      at(150, { pinned: 'own-1' }),
      at(200, { pinned: 'cut', paint: letters }),
    ]),
    fine,
  );
  const meantIn = (known: JobDocument) => {
    const { layers, placed } = prepareJob(known, shop).meaning;
    const names = layers.flatMap(({ id, name, operation }) =>
      (placed.get(id) ?? []).map(({ item }) => [Math.round(boundsOf(item).minX), `${operation} ${name}`] as const),
    );
    return names.sort((a, b) => a[0] - b[0]).map(([, name]) => name);
  };
  const out = (paints: 'as-came' | 'by-operation') =>
    gatherOutgoing(prepareJob(job, shop), page, { paints, guides: true, only: null, onlyBurnt: false });
  const cameBack = async (bytes: Uint8Array, into: JobDocument, choices = {}) => {
    const reading = await readDrawingFile(bytes, idFor, testTools, choices);
    const arrival = { id: 't', file: 'f', originalId: null, choices, place: identity };
    return { job: acceptArrival(into, arrival, reading, prepareJob(into, shop).key), reading };
  };
  const text = (written: string) => new TextEncoder().encode(written);

  test.each([
    ['SVG', async (layers: Outgoing) => text(writeSvg(layers)), 'Fine: lines'],
    ['DXF', async (layers: Outgoing) => text(writeDxf(layers)), 'Fine- lines'],
    ['PDF', async (layers: Outgoing) => writePdf([layers], 'Stars'), 'Fine: lines'],
  ])('what was put on them by hand comes back there in %s, in a new job and in the same', async (_, write, name) => {
    for (const paints of ['as-came', 'by-operation'] as const) {
      const written = await write(out(paints));
      const fresh = await cameBack(written, newJob(job.machineId, job.keyId));
      const expected = ['cut Cut', 'score Score', 'engrave Engrave', `score ${name}`, 'cut Cut'];
      expect(meantIn(fresh.job)).toEqual(expected);
      expect(codesOf(fresh.reading)).toContain('layers-taken');
      // The job that has the layer takes its own.
      const same = await cameBack(written, { ...job, drawing: { items: [], groups: [] } });
      expect(meantIn(same.job)).toEqual(meantIn(job));
      expect(same.job.layers).toEqual([fine]);
    }
  });
  test('by their colours, if that is chosen; and back again where it was read already', async () => {
    const written = text(writeSvg(out('as-came')));
    const choices = { layers: 'by-colour' as const };
    const byColour = await cameBack(written, newJob(job.machineId, job.keyId), choices);
    expect(byColour.job.drawing.items.map(({ pinned }) => pinned)).toEqual([null, null, null, null, null]);
    expect(codesOf(byColour.reading)).not.toContain('layers-taken');
    const named = await cameBack(written, newJob(job.machineId, job.keyId));
    const [first, second] = named.job.drawing.items;
    const touched = pinItems(named.job, new Set([second.id]), 'guide');
    const arrival = { ...named.job.arrivals[0], choices };
    const readings = { before: named.reading, after: byColour.reading };
    const again = rereadArrival(touched, arrival, readings, prepareJob(touched, shop).key);
    const pins = new Map(again.drawing.items.map(({ id, pinned }) => [id, pinned]));
    // What was put on a layer by hand stays there.
    expect([pins.get(first.id), pins.get(second.id)]).toEqual([null, 'guide']);
    expect([...pins.values()].filter((pinned) => pinned !== null)).toEqual(['guide']);
  });
  test('letters that are cut go out in DXF as their outlines; engraved ones are filled', () => {
    const written = writeDxf(out('by-operation'));
    const kinds = written.split(/\r?\n/).filter((line) => /^(HATCH|LWPOLYLINE)$/.test(line.trim()));
    // Of the engraved star its fill alone.
    expect(kinds.filter((kind) => kind.trim() === 'HATCH')).toHaveLength(1);
    expect(kinds.filter((kind) => kind.trim() === 'LWPOLYLINE')).toHaveLength(4);
  });
  test('a layer of another program that is named as an operation is taken, any other is not', async () => {
    const line = (layer: string, y: number) =>
      [
        [0, 'LINE'],
        [8, layer],
        [10, 0],
        [20, y],
        [11, 9],
        [21, y],
      ] as (readonly [number, string | number])[];
    const file = dxf({ ENTITIES: [...line('SCORE', 0), ...line('Score - deep', 10), ...line('Scores', 20)] });
    const { reading } = await cameBack(text(file), newJob(job.machineId, job.keyId));
    expect(reading.layers?.map(({ name, operation }) => `${operation} ${name}`)).toEqual(['score Score', 'score deep']);
  });
});
