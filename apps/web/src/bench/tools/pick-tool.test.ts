import { describe, expect, test } from '@jest/globals';
import { boundsOf } from '@lambent/core/document';
import { ungroupItems } from '@lambent/core/edits';
import type { Box } from '@lambent/core/geometry';
import { benchWith, pointerAt, square } from '../fixtures/bench.ts';
import { closeGroup } from '../open-group.ts';
import { jobOf } from '../state/document.ts';
import { PickTool } from './pick-tool.ts';

/** A Bench with a pair in a group and a square beside it, seen at 2 pixels a mm, and a pointer on it. */
function bench() {
  const { actions, store } = benchWith(`<g>${square(20, 20, 40)}${square(30, 30, 10)}</g>${square(100, 20, 30)}`);
  actions.showView({ scale: 2, x: 10, y: 10 });
  const frames: (Box | null)[] = [];
  // What is moved is caught by nothing here; what catches it has tests of its own.
  actions.setSnapping({ mode: 'none' });
  store.subscribe(({ frame }, before) => {
    if (frame !== before.frame) frames.push(frame);
  });
  const tool = new PickTool(actions);
  const event = (x: number, y: number, more = {}) => pointerAt(actions, x, y, more);
  return {
    actions,
    frames,
    tool,
    down: (x: number, y: number, more = {}) => tool.down(event(x, y, more)),
    move: (x: number, y: number, more = {}) => tool.move(event(x, y, more)),
    up: (x: number, y: number, more = {}) => tool.up(event(x, y, more)),
    selected: () => [...actions.get().selection],
    places: () =>
      jobOf(actions.get()).drawing.items.map((item) =>
        [boundsOf(item).minX, boundsOf(item).minY].map((mm) => Math.round(mm * 1e6) / 1e6),
      ),
  };
}

const [outer, inner, single] = ['i2', 'i3', 'i4'];

describe('places that are filled run by run', () => {
  test('what is taken hold of is what the run at hand burns', () => {
    const { actions, down, up, move, selected } = bench();
    // The pair lies at one place: one piece for each of two rows, and a run for each.
    actions.edit('fill', (job) => {
      const [group] = job.drawing.groups;
      const rows = [outer, inner].map((id) => ({ ...group, id: `row ${id}`, row: { listId: 'list', rowId: id } }));
      const items = job.drawing.items.map((item) =>
        item.id === single ? item : { ...item, groupId: `row ${item.id}` },
      );
      const runs = [outer, inner].map((id) => ({ ...job.runs[0], id: `run ${id}`, only: [id] }));
      return { ...job, drawing: { ...job.drawing, items, groups: rows }, runs };
    });
    const click = () => {
      down(35, 35);
      up(35, 35);
      return selected();
    };
    const frame = () => {
      down(15, 15);
      move(160, 80);
      up(160, 80);
      return selected();
    };
    actions.chooseRun(`run ${outer}`);
    expect([click(), frame()]).toEqual([[outer], [outer, single]]);
    actions.chooseRun(`run ${inner}`);
    expect([click(), frame()]).toEqual([[inner], [inner, single]]);
  });
});

describe('selecting', () => {
  test('a click takes the group, with Ctrl the item alone, beside everything nothing', () => {
    const { down, up, selected } = bench();
    down(30, 35);
    up(30, 35);
    expect(selected()).toEqual([outer, inner]);
    down(30, 35, { ctrl: true });
    up(30, 35, { ctrl: true });
    expect(selected()).toEqual([inner]);
    down(180, 90);
    up(180, 90);
    expect(selected()).toEqual([]);
  });

  test('Shift adds and takes away', () => {
    const { down, up, selected } = bench();
    down(100, 30);
    up(100, 30);
    down(20, 30, { shift: true });
    up(20, 30, { shift: true });
    expect(selected().sort()).toEqual([outer, inner, single]);
    down(100, 30, { shift: true });
    up(100, 30, { shift: true });
    expect(selected()).toEqual([outer, inner]);
  });

  test('a frame takes what lies in it whole, with Shift on top of what is selected', () => {
    const { down, move, up, selected, frames } = bench();
    down(5, 5);
    move(70, 70);
    expect(frames.at(-1)).toEqual({ minX: 5, minY: 5, maxX: 70, maxY: 70 });
    up(70, 70);
    expect(frames.at(-1)).toBeNull();
    expect(selected()).toEqual([outer, inner]);
    down(140, 60, { shift: true });
    move(90, 10, { shift: true });
    up(90, 10, { shift: true });
    expect(selected()).toEqual([outer, inner, single]);
    down(5, 5);
    move(50, 50);
    up(50, 50);
    expect(selected()).toEqual([inner]);
  });
});

describe('moving', () => {
  test('a drag moves the selection as one edit with a name, to 0.01 mm', () => {
    const { actions, down, move, up, places } = bench();
    down(20, 30);
    move(25, 33);
    expect(actions.get().live).toEqual([1, 0, 0, 1, 5, 3]);
    expect(places()[0]).toEqual([20, 20]);
    move(27.006, 35.001);
    up(27.006, 35.001);
    expect(places()).toEqual([
      [27.01, 25],
      [37.01, 35],
      [100, 20],
    ]);
    expect(actions.get()).toMatchObject({ live: null, history: { past: [{ name: 'move 2 items' }] } });
    actions.undo();
    expect(places()[0]).toEqual([20, 20]);
  });

  test('Shift keeps to one axis, a twitch is no drag, and giving up moves nothing', () => {
    const { tool, down, move, up, places } = bench();
    down(20, 30);
    move(40, 32, { shift: true });
    up(40, 32, { shift: true });
    expect(places()[0]).toEqual([40, 20]);
    down(40, 30);
    move(40.5, 30.5);
    up(40.5, 30.5);
    expect(places()[0]).toEqual([40, 20]);
    down(40, 30);
    move(80, 80);
    expect(tool.cancel()).toBe(true);
    up(80, 80);
    expect(places()[0]).toEqual([40, 20]);
    expect(tool.cancel()).toBe(false);
  });

  test('the selection can be held by its middle, where there is no line', () => {
    const { actions, down, move, up, places } = bench();
    actions.select([outer, single]);
    down(80, 45);
    move(90, 45);
    up(90, 45);
    expect(places()).toEqual([
      [30, 20],
      [30, 30],
      [110, 20],
    ]);
  });
});

test('what lies under the pointer is told, its group with it, without selecting it', () => {
  const { actions, move, selected } = bench();
  move(30, 35);
  expect([...actions.get().under]).toEqual([outer, inner]);
  const { under } = actions.get();
  move(30, 36);
  expect(actions.get().under).toBe(under);
  move(180, 90);
  expect([actions.get().under.size, selected()]).toEqual([0, []]);
});

describe('a group', () => {
  test('is opened by a double click: what is in it is selected piece by piece, until something else is', () => {
    const { actions, down, up, selected } = bench();
    const click = (x: number, y: number, clicks = 1) => {
      down(x, y, { clicks });
      up(x, y, { clicks });
    };
    click(30, 35);
    click(30, 35, 2);
    expect(selected()).toEqual([inner]);
    click(20, 50);
    expect(selected()).toEqual([outer]);
    click(100, 35);
    expect([selected(), actions.get().openGroup]).toEqual([[single], null]);
    click(20, 50);
    expect(selected()).toEqual([outer, inner]);
  });

  test('that is open is closed beside everything, and by Escape as a whole', () => {
    const { actions, down, up, selected } = bench();
    down(30, 35, { clicks: 2 });
    up(30, 35, { clicks: 2 });
    expect(closeGroup(actions)).toBe(true);
    expect([selected(), actions.get().openGroup]).toEqual([[outer, inner], null]);
    expect(closeGroup(actions)).toBe(false);
    down(30, 35, { clicks: 2 });
    up(30, 35, { clicks: 2 });
    down(180, 90);
    up(180, 90);
    expect([selected(), actions.get().openGroup]).toEqual([[], null]);
  });

  test('that is taken apart is open no longer', () => {
    const { actions, down, up } = bench();
    down(30, 35, { clicks: 2 });
    up(30, 35, { clicks: 2 });
    actions.select([outer, inner]);
    actions.edit('take apart', (job) => ungroupItems(job, new Set([outer, inner])));
    expect(actions.get().openGroup).toBeNull();
  });
});

test('what is moved is caught by its own corners, and Alt suspends it', () => {
  const { actions, down, move, up, places } = bench();
  actions.setSnapping({ mode: 'all' });
  // The square at 100 goes to where its left edge nearly meets the right edge at 60 of the outer one.
  down(100, 35);
  move(80, 35);
  move(60.8, 35.4);
  up(60.8, 35.4);
  expect(places()[2]).toEqual([60, 20]);
  actions.undo();
  down(100, 35);
  move(80, 35);
  move(60.8, 35.4, { alt: true });
  up(60.8, 35.4, { alt: true });
  expect(places()[2]).toEqual([60.8, 20.4]);
});
