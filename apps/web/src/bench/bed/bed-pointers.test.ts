import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { boundsOf } from '@lambent/core/document';
import type { Point } from '@lambent/core/geometry';
import fc from 'fast-check';
import { benchWith, square } from '../fixtures/bench.ts';
import { jobOf } from '../state/document.ts';
import type { Tool, ToolPoint } from '../tools/tool.ts';
import { BedPointers, type PointerInput } from './bed-pointers.ts';
import { toBed } from './view.ts';

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

/** A Bench whose tool says what it is told, and pointers on it. */
function bed({ movesView = false, takesPress = false } = {}) {
  const { actions } = benchWith(square(20, 20, 40));
  actions.showView({ scale: 2, x: 10, y: 10 });
  const said: string[] = [];
  const say = (what: string) => (point: ToolPoint) =>
    void said.push(`${what} ${point.screen.x},${point.screen.y}${point.clicks > 1 ? ` ×${point.clicks}` : ''}`);
  const tool: Tool = {
    name: 'rectangle',
    snaps: false,
    from: null,
    down: say('down'),
    move: say('move'),
    up: say('up'),
    cancel: () => said.push('cancel') > 0,
  };
  actions.takeTool(tool);
  const held: Point[] = [];
  const pointers = new BedPointers(actions, {
    movesView: () => movesView,
    press: () => takesPress,
    held: (screen) => void held.push(screen),
  });
  const input = (kind: PointerInput['kind'], id: number, x: number, y: number, more = {}): PointerInput => ({
    id,
    kind,
    screen: { x, y },
    button: 0,
    shift: false,
    ctrl: false,
    alt: false,
    madeAt: 0,
    ...more,
  });
  const by = (kind: PointerInput['kind'], id = 1) => ({
    down: (x: number, y: number, more = {}) => pointers.down(input(kind, id, x, y, more)),
    move: (x: number, y: number, more = {}) => pointers.move(input(kind, id, x, y, more)),
    up: (x: number, y: number, more = {}) => pointers.up(input(kind, id, x, y, more)),
  });
  return { actions, said, held, pointers, mouse: by('mouse'), finger: by('touch', 1), second: by('touch', 2), by };
}

describe('a mouse', () => {
  test('works with the tool at once, and counts presses in quick succession', () => {
    const { said, mouse } = bed();
    mouse.move(10, 10);
    mouse.down(10, 10, { madeAt: 1000 });
    mouse.up(10, 10);
    mouse.down(12, 11, { madeAt: 1300 });
    mouse.up(12, 11);
    mouse.down(12, 11, { madeAt: 1701 });
    expect(said).toEqual(['move 10,10', 'down 10,10', 'up 10,10', 'down 12,11 ×2', 'up 12,11 ×2', 'down 12,11']);
  });

  test('moves the view with its middle button, or while the key is held; the right one is not the tool’s', () => {
    for (const { movesView, button } of [
      { movesView: false, button: 1 },
      { movesView: true, button: 0 },
    ]) {
      const { actions, said, mouse } = bed({ movesView });
      mouse.down(10, 10, { button });
      mouse.move(25, 4);
      expect(actions.get().view).toEqual({ scale: 2, x: 25, y: 4 });
      mouse.up(25, 4);
      expect(said).toEqual([]);
    }
    const { said, mouse } = bed();
    mouse.down(10, 10, { button: 2 });
    expect(said).toEqual([]);
  });

  test('whose button was let go elsewhere presses anew', () => {
    const { said, mouse } = bed();
    mouse.down(10, 10);
    mouse.down(30, 30, { madeAt: 5000 });
    expect(said).toEqual(['down 10,10', 'down 30,30']);
  });
});

describe('one finger', () => {
  test('that is lifted where it came down is a click, told as a mouse’s is', () => {
    const { actions, said, finger } = bed();
    finger.down(10, 10);
    finger.move(13, 10);
    expect(said).toEqual([]);
    finger.up(13, 10);
    expect(said).toEqual(['move 10,10', 'down 10,10', 'up 13,10']);
    expect(actions.get()).toMatchObject({ isFinger: true, pointer: null });
  });

  test('that goes on drags from where it came down', () => {
    const { said, finger, held } = bed();
    finger.down(10, 10);
    finger.move(30, 10);
    jest.runAllTimers();
    finger.move(40, 10);
    finger.up(40, 10);
    expect(said).toEqual(['down 10,10', 'move 30,10', 'move 40,10', 'up 40,10']);
    expect(held).toEqual([]);
  });

  test('that is held asks for the menu, and does nothing else', () => {
    const { said, finger, held } = bed();
    finger.down(10, 10);
    jest.runAllTimers();
    finger.move(60, 60);
    finger.up(60, 60);
    expect(held).toEqual([{ x: 10, y: 10 }]);
    expect(said).toEqual([]);
  });

  test('that the system takes away gives up what it was at', () => {
    const { said, finger, pointers, held } = bed();
    finger.down(10, 10);
    pointers.cancel(1);
    jest.runAllTimers();
    finger.down(10, 10);
    finger.move(30, 10);
    pointers.cancel(1);
    finger.up(30, 10);
    expect(said).toEqual(['down 10,10', 'move 30,10', 'cancel']);
    expect(held).toEqual([]);
  });
});

describe('two fingers', () => {
  test('keep the points of the bed that they hold under them, wherever they go; the tool hears nothing', () => {
    const place = fc.record({ x: fc.integer({ min: 0, max: 800 }), y: fc.integer({ min: 0, max: 600 }) });
    fc.assert(
      fc.property(place, place, fc.array(fc.tuple(fc.boolean(), place), { maxLength: 6 }), (a, b, steps) => {
        const { actions, said, finger, second } = bed();
        const apart = (p: Point, q: Point) => Math.hypot(p.x - q.x, p.y - q.y);
        const spots = [a, ...steps.map(([, p]) => p), b];
        // What is nearer than this zooms past the least or the most.
        fc.pre(spots.every((p, i) => spots.every((q, j) => i === j || apart(p, q) > 60)));
        finger.down(a.x, a.y);
        second.down(b.x, b.y);
        const before = actions.get().view;
        const length = apart(toBed(before, a.x, a.y), toBed(before, b.x, b.y));
        const now = [a, b];
        for (const [isFirst, to] of steps) {
          now[isFirst ? 0 : 1] = to;
          (isFirst ? finger : second).move(to.x, to.y);
        }
        const { view } = actions.get();
        // A move of the view does not turn it: what they hold stays as far apart, and in the middle of them.
        expect(apart(toBed(view, now[0].x, now[0].y), toBed(view, now[1].x, now[1].y))).toBeCloseTo(length, 6);
        const middle = { x: (now[0].x + now[1].x) / 2, y: (now[0].y + now[1].y) / 2 };
        const held = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
        const [was, is] = [toBed(before, held.x, held.y), toBed(view, middle.x, middle.y)];
        expect([is.x, is.y]).toEqual([expect.closeTo(was.x, 6), expect.closeTo(was.y, 6)]);
        expect(said).toEqual([]);
      }),
    );
  });

  test('end together: the one that is left draws nothing, nor does one that comes while the first draws', () => {
    const { said, finger, second } = bed();
    finger.down(10, 10);
    second.down(100, 10);
    second.up(100, 10);
    finger.move(50, 50);
    finger.up(50, 50);
    expect(said).toEqual([]);
    finger.down(10, 10);
    finger.move(40, 10);
    second.down(100, 10);
    second.move(120, 10);
    second.up(120, 10);
    finger.up(40, 10);
    expect(said).toEqual(['down 10,10', 'move 40,10', 'up 40,10']);
  });
});

test('a press that the bed takes itself is not the tool’s', () => {
  const { said, mouse, finger } = bed({ takesPress: true });
  mouse.down(10, 10);
  mouse.up(10, 10);
  finger.down(10, 10);
  finger.up(10, 10);
  expect(said.filter((what) => !what.startsWith('move'))).toEqual([]);
});

describe('what is selected, while a drawing tool is at hand', () => {
  /** The square's right edge runs at x = 130 px, from y = 50 to 130. */
  const withSquare = () => {
    const { actions, said, mouse } = bed();
    actions.select([jobOf(actions.get()).drawing.items[0].id]);
    const left = () => boundsOf(jobOf(actions.get()).drawing.items[0]).minX;
    return { actions, said, mouse, left };
  };

  test('is moved by a drag of its line', () => {
    const { actions, said, mouse, left } = withSquare();
    actions.setSnapping({ mode: 'none' });
    mouse.move(130, 70);
    expect(actions.get().takesHold).toBe(true);
    said.length = 0;
    mouse.down(130, 70);
    mouse.move(150, 70);
    mouse.up(150, 70);
    expect([left(), said]).toEqual([30, []]);
  });

  test('leaves a press that is no drag, one beside it, and one with Alt to the tool', () => {
    const { said, mouse, left } = withSquare();
    mouse.down(130, 70);
    mouse.up(131, 70);
    mouse.down(90, 90, { madeAt: 1000 });
    mouse.move(100, 90);
    mouse.up(100, 90);
    mouse.down(130, 70, { madeAt: 2000, alt: true });
    mouse.up(150, 70, { alt: true });
    expect(left()).toBe(20);
    expect(said).toEqual([
      'down 130,70',
      'up 131,70',
      'down 90,90',
      'move 100,90',
      'up 100,90',
      'down 130,70',
      'up 150,70',
    ]);
  });

  test('is not held where something new may begin: at its corner', () => {
    const { actions, said, mouse } = withSquare();
    const tool = actions.get().tool as Tool;
    actions.takeTool({ ...tool, snaps: true });
    mouse.move(129, 51);
    expect([actions.get().caught.snap?.kind, actions.get().takesHold]).toEqual(['end', false]);
    mouse.down(129, 51);
    expect(said.at(-1)).toBe('down 129,51');
  });
});
