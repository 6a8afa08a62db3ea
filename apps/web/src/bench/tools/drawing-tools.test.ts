import { describe, expect, test } from '@jest/globals';
import { boundsOf, outlineOf, pathOf } from '@lambent/core/document';
import { flatten, polylineLength, subpathsOf } from '@lambent/core/geometry';
import { benchWith, pointerAt, square } from '../fixtures/bench.ts';
import { jobOf } from '../state/document.ts';
import { chooseTool } from './choose.ts';
import { dropGuide, guideUnder, movedGuide } from './guides.ts';
import type { Tool, ToolName, ToolPoint } from './tool.ts';
import type { ToolOptions } from './tool-options.ts';

/** A Bench seen at 2 pixels a mm, with a tool at hand and a pointer on it. */
function bench(name: ToolName, options: Partial<ToolOptions> = {}, body = '') {
  const { actions } = benchWith(body, null);
  actions.showView({ scale: 2, x: 0, y: 0 });
  actions.resizeView({ left: 0, top: 0, width: 800, height: 600, windowWidth: 1000, windowHeight: 700 });
  actions.setToolOptions(options);
  chooseTool(actions, name);
  const tool = actions.get().tool as Tool;
  const at = (x: number, y: number, more: Partial<ToolPoint> = {}) => pointerAt(actions, x, y, more);
  return {
    actions,
    tool,
    items: () => jobOf(actions.get()).drawing.items,
    past: () => actions.get().history.past.map((step) => step.name),
    move: (x: number, y: number, more = {}) => tool.move(at(x, y, more)),
    click: (x: number, y: number, more = {}) => {
      tool.move(at(x, y, more));
      tool.down(at(x, y, more));
      tool.up(at(x, y, more));
    },
    drag: (x: number, y: number, toX: number, toY: number, more = {}) => {
      tool.down(at(x, y, more));
      tool.move(at((x + toX) / 2, (y + toY) / 2, more));
      tool.move(at(toX, toY, more));
      tool.up(at(toX, toY, more));
    },
  };
}

describe('shapes', () => {
  test.each(['rectangle', 'ellipse', 'slot', 'polygon'] as const)(
    'a %s is drawn by a drag or by two clicks, alike',
    (name) => {
      const dragged = bench(name);
      dragged.drag(20, 30, 80, 50);
      const clicked = bench(name);
      clicked.click(20, 30);
      expect(clicked.items()).toHaveLength(0);
      clicked.click(80, 50);
      expect(clicked.items()).toHaveLength(1);
      expect(clicked.items()[0].shape).toEqual(dragged.items()[0].shape);
      expect([...clicked.actions.get().selection]).toEqual([clicked.items()[0].id]);
    },
  );

  test('what is typed goes over the pointer, and Shift makes it a square', () => {
    const { tool, items, click, move, drag } = bench('rectangle');
    click(10, 10);
    move(33, 21);
    expect(tool.type?.('width', 54)).toBeUndefined();
    expect(tool.type?.('height', 27)).toBeUndefined();
    tool.finish?.();
    expect(boundsOf(items()[0])).toEqual({ minX: 10, minY: 10, maxX: 64, maxY: 37 });
    drag(100, 10, 130, 25, { shift: true });
    const { minX, minY, maxX, maxY } = boundsOf(items()[1]);
    expect(maxX - minX).toBeCloseTo(maxY - minY, 9);
  });

  test('sizes that make no sense are refused in a sentence, and what was under way goes on', () => {
    const { tool, items, click } = bench('rectangle');
    click(10, 10);
    expect(tool.type?.('width', 0)).toBe('A size is more than 0.');
    expect(tool.type?.('width', -3)).toBe('A size is more than 0.');
    expect(tool.type?.('width', 1e6)).toBe('That is larger than any bed.');
    click(30, 25);
    expect(boundsOf(items()[0])).toEqual({ minX: 10, minY: 10, maxX: 30, maxY: 25 });
  });

  test('given up, it leaves nothing; a second click on the first draws nothing', () => {
    const { tool, items, click, actions } = bench('ellipse');
    expect(tool.cancel()).toBe(false);
    click(10, 10);
    click(10, 10);
    expect(items()).toHaveLength(0);
    expect(tool.cancel()).toBe(true);
    expect(actions.get().draft).toBeNull();
    expect(actions.get().history.past).toEqual([]);
  });
});

describe('lines', () => {
  test('from point to point, by length and angle, closed on the first', () => {
    const { tool, items, click, move } = bench('line');
    click(20, 20);
    move(50, 21);
    tool.type?.('length', 30);
    tool.type?.('angle', 0);
    tool.finish?.();
    click(50, 60);
    click(20, 20.5);
    const [{ segments, closed }] = [...subpathsOf(pathOf(items()[0]))];
    expect(closed).toBe(true);
    expect(segments).toHaveLength(3);
    const [outline] = flatten(outlineOf(items()[0].shape));
    expect(polylineLength(outline)).toBeCloseTo(30 + 40 + 50, 6);
  });

  test('Shift keeps to the angle step; backspace takes the last point back; a click on the last ends it', () => {
    const { tool, items, click } = bench('line', { angleStep: 90 });
    click(20, 20);
    click(60, 22, { shift: true });
    click(70, 90);
    expect(tool.key?.('backspace', false)).toBe(true);
    click(60, 20);
    expect(items()).toHaveLength(1);
    const { minX, maxX, minY, maxY } = boundsOf(items()[0]);
    expect([minX, minY, maxY]).toEqual([20, 20, 20]);
    // The step turns the way it went, and keeps how long it was.
    expect(maxX).toBeCloseTo(20 + Math.hypot(40, 2), 9);
  });

  test('a single point is no line', () => {
    const { tool, items, click } = bench('line');
    click(20, 20);
    tool.finish?.();
    expect(items()).toHaveLength(0);
  });
});

describe('reshaping', () => {
  const cross = `${square(20, 20, 40)}<path d="M40 0V100" fill="none" stroke="#D0481E" stroke-width="0.1"/>`;

  test('trimmed between its crossings; what is left and what went are the whole', () => {
    const { items, click, past, actions } = bench('stretch', {}, cross);
    const length = () =>
      items().reduce((sum, item) => sum + flatten(pathOf(item)).reduce((all, one) => all + polylineLength(one), 0), 0);
    const whole = length();
    click(40, 40);
    expect(past()).toEqual(['trim']);
    expect(length()).toBeCloseTo(whole - 40, 6);
    actions.undo();
    expect(length()).toBeCloseTo(whole, 9);
  });

  test('a guide ends no stretch that is trimmed, but that of another guide', () => {
    const guide = '<path d="M0 40H100" fill="none" stroke="#7A7F80" stroke-width="0.1"/>';
    const { items, click } = bench('stretch', {}, `${cross}${guide}`);
    click(20, 50);
    // Left of the cross the square is gone as a whole, over the guide.
    expect(items().map((item) => boundsOf(item).minX)).toEqual([40, 40, 0]);
    click(30, 40);
    expect(boundsOf(items()[2]).minX).toBe(40);
  });

  test('beside every line it does nothing', () => {
    const { click, past } = bench('stretch', {}, cross);
    click(150, 80);
    expect(past()).toEqual([]);
  });

  test('a corner is rounded, a click on it again gives it another size, 0 takes it away', () => {
    const { items, click, actions } = bench('corner', { corner: 'round', cornerSize: 5 }, square(20, 20, 40));
    const around = () => flatten(pathOf(items()[0]), 0.0005).map(polylineLength)[0];
    click(20, 20);
    // A quarter round of radius r takes 2r − πr/2 off the way around.
    expect(around()).toBeCloseTo(160 - (2 - Math.PI / 2) * 5, 2);
    actions.setToolOptions({ cornerSize: 8 });
    click(21, 21);
    expect(around()).toBeCloseTo(160 - (2 - Math.PI / 2) * 8, 2);
    actions.setToolOptions({ cornerSize: 0 });
    click(21, 21);
    expect(around()).toBeCloseTo(160, 6);
  });
});

describe('dimension marks', () => {
  test('an edge is measured by one click, two points by two; a third says how far beside', () => {
    const { click, past, actions } = bench('dimension', {}, square(20, 20, 40));
    click(33, 20);
    click(33, 10);
    click(80, 80);
    click(110, 120);
    click(120, 90);
    expect(past()).toEqual(['put a dimension mark', 'put a dimension mark']);
    const [edge, points] = jobOf(actions.get()).dimensions;
    expect(edge.from).toMatchObject({ kind: 'outline' });
    expect(Math.abs(edge.beside)).toBeCloseTo(10, 6);
    expect(points.from).toEqual({ kind: 'point', x: 80, y: 80 });
  });
});

describe('guide lines', () => {
  const guide = { id: 'g', axis: 'x', at: 50 } as const;

  test('one that is pulled is put down, taken up again near it, and goes when it is dropped out of view', () => {
    const { actions, past } = bench('pick');
    actions.showGuide(guide);
    dropGuide(actions);
    expect(guideUnder(actions.get(), { x: 52, y: 90 })).toEqual(guide);
    expect(guideUnder(actions.get(), { x: 53, y: 90 })).toBeNull();
    actions.showGuide({ ...guide, at: 70 });
    dropGuide(actions);
    expect(jobOf(actions.get()).guides).toEqual([{ ...guide, at: 70 }]);
    actions.showGuide({ ...guide, at: -4 });
    dropGuide(actions);
    expect(jobOf(actions.get()).guides).toEqual([]);
    expect(past()).toEqual(['pull a guide line', 'move a guide line', 'take a guide line away']);
  });

  test('it is caught by a corner that is near, and not with Alt', () => {
    const { actions } = bench('pick', {}, square(20, 20, 40));
    expect(movedGuide(actions.get(), guide, { free: { x: 60.6, y: 60.4 }, alt: false }).at).toBeCloseTo(60, 9);
    expect(movedGuide(actions.get(), guide, { free: { x: 60.6, y: 60.4 }, alt: true }).at).toBeCloseTo(60.5, 0);
  });
});
