import { expect, test } from '@jest/globals';
import { heldOutlines } from '@lambent/core/plan';
import { benchWith, pointerAt, square } from '../fixtures/bench.ts';
import { jobOf } from '../state/document.ts';
import { chooseTool } from './choose.ts';
import type { Tool } from './tool.ts';

function bench() {
  const { actions } = benchWith(square(20, 20, 40) + square(100, 20, 40, '#00806A'));
  actions.showView({ scale: 2, x: 0, y: 0 });
  chooseTool(actions, 'tabs');
  const tool = actions.get().tool as Tool;
  const at = (x: number, y: number) => pointerAt(actions, x, y);
  return {
    actions,
    past: () => actions.get().history.past.map((step) => step.name),
    tabs: () => heldOutlines(actions.get().prepared).flatMap(({ points }) => points),
    click: (x: number, y: number) => {
      tool.down(at(x, y));
      tool.up(at(x, y));
    },
    drag: (x: number, y: number, toX: number, toY: number) => {
      tool.down(at(x, y));
      tool.move(at(toX, toY));
      const shown = actions.get().draft?.dots;
      tool.up(at(toX, toY));
      return shown;
    },
  };
}

test('a click on a cut puts a tab there, a drag moves it along, and a click takes it away', () => {
  const { actions, click, drag, tabs, past } = bench();
  click(30, 21);
  expect(tabs()).toEqual([{ x: 30, y: 20 }]);
  click(60, 50);
  expect(tabs()).toEqual([
    { x: 30, y: 20 },
    { x: 60, y: 50 },
  ]);
  expect(drag(30, 20, 45, 22)).toMatchObject([{ x: 45, y: 20 }]);
  expect(tabs()).toEqual([
    { x: 60, y: 50 },
    { x: 45, y: 20 },
  ]);
  expect(actions.get().draft).toBeNull();
  click(60, 50);
  expect(tabs()).toEqual([{ x: 45, y: 20 }]);
  expect(past()).toEqual(['add a tab', 'add a tab', 'move a tab', 'take a tab away']);
});

test('a click on what is not cut, or far from it, does nothing', () => {
  const { click, tabs, past } = bench();
  click(110, 20);
  click(30, 30);
  expect(tabs()).toEqual([]);
  expect(past()).toEqual([]);
});

test('the usual tabs of a layer are shown, and stay where one of them is moved', () => {
  const { actions, drag, tabs } = bench();
  actions.edit('tabs', (job) => ({ ...job, settings: { cut: { tabs: 4 } } }));
  expect(tabs()).toHaveLength(4);
  drag(40, 20, 50, 20);
  expect(tabs()).toHaveLength(4);
  expect(tabs()).toContainEqual({ x: 50, y: 20 });
  expect(jobOf(actions.get()).tabs).toHaveLength(1);
});
