import { describe, expect, test } from '@jest/globals';
import { toScreen } from './bed/view.ts';
import { benchWith, square } from './fixtures/bench.ts';
import { runShortcut, type Stroke, shortcutFor, shortcuts, withKeys } from './shortcuts.ts';
import { jobOf } from './state/document.ts';
import { toolNames } from './tools/tool.ts';
import { toolLooks } from './tools/tool-looks.ts';

const plain: Stroke = { key: '', code: '', ctrl: false, shift: false, alt: false, on: null };
const ctrl = (key: string): Stroke => ({ ...plain, key, ctrl: true });

function bench() {
  const { actions } = benchWith(square(20, 20, 30));
  const opened: string[] = [];
  let sheets = 0;
  let menus = 0;
  const keyed = {
    actions,
    open: (stage: string) => opened.push(stage),
    showKeys: () => sheets++,
    openMenu: () => menus++,
  };
  const press = (stroke: Partial<Stroke>) => runShortcut(keyed, { ...plain, ...stroke });
  return {
    actions,
    opened,
    sheets: () => sheets,
    menus: () => menus,
    press,
    count: () => jobOf(actions.get()).drawing.items.length,
  };
}

describe('the table', () => {
  const all = Object.values(shortcuts);

  test('no stroke stands for two things, and none for what a tool is chosen by', () => {
    const strokes = all.flatMap((one) => (typeof one.strokes === 'function' ? [] : one.strokes));
    expect(new Set(strokes).size).toBe(strokes.length);
    const codes = toolNames.map((name) => toolLooks[name].code);
    expect(new Set(codes).size).toBe(codes.length);
    for (const stroke of strokes) expect(codes).not.toContain(`Key${stroke.toUpperCase()}`);
  });

  test('each line of the sheet is said once', () => {
    const lines = all.flatMap(({ keys, does }) => (does === null ? [] : [keys]));
    expect(lines.length).toBeGreaterThan(18);
    expect(new Set(lines).size).toBe(lines.length);
  });

  test('what no line says for itself is said by another, or needs no word', () => {
    const unsaid = Object.entries(shortcuts).flatMap(([name, { does }]) => (does === null ? [name] : []));
    expect(unsaid).toEqual(['ungroup', 'finish', 'sheet']);
  });

  test('a button’s words name the keys', () => {
    expect(withKeys('Delete', 'delete')).toBe('Delete (Del)');
  });
});

describe('a stroke', () => {
  test('with Shift is its own where there is one, and else as without', () => {
    expect(shortcutFor({ ...ctrl('z'), shift: true })).toBe(shortcuts.redo);
    expect(shortcutFor(ctrl('z'))).toBe(shortcuts.undo);
    expect(shortcutFor(ctrl('y'))).toBe(shortcuts.redo);
    expect(shortcutFor({ ...plain, key: 'pageup', shift: true })).toBe(shortcuts.order);
    expect(shortcutFor({ ...plain, key: 'z' })).toBeNull();
    expect(shortcutFor(ctrl('b'))).toBeNull();
  });

  test('undoes, redoes and deletes; with nothing selected there is nothing to delete', () => {
    const { actions, press, count } = bench();
    expect(press({ key: 'delete' })).toBe(false);
    expect(press(ctrl('a'))).toBe(true);
    expect(actions.get().selection.size).toBe(1);
    expect(press({ key: 'backspace' })).toBe(true);
    expect(count()).toBe(0);
    press(ctrl('z'));
    expect(count()).toBe(1);
    press({ ...ctrl('z'), shift: true });
    expect(count()).toBe(0);
  });

  test.each([
    [{}, 1, 0],
    [{ shift: true }, 10, 0],
    [{ alt: true }, 0.1, 0],
    [{ key: 'arrowup' }, 0, -1],
  ])('of an arrow nudges the selection by the step: %j', (more, dx, dy) => {
    const { actions, press } = bench();
    press(ctrl('a'));
    expect(press({ key: 'arrowright', on: 'field', ...more })).toBe(false);
    expect(press({ key: 'arrowright', ...more })).toBe(true);
    const [, , , , x, y] = jobOf(actions.get()).drawing.items[0].matrix;
    const { nudge } = actions.get().toolOptions;
    expect([x, y]).toEqual([expect.closeTo(dx * nudge), expect.closeTo(dy * nudge)]);
  });

  test('opens a stage, the sheet of keys, and Art with a tool in hand', () => {
    const { actions, opened, sheets, press } = bench();
    press({ key: '3' });
    expect(press({ key: '8' })).toBe(false);
    press({ key: '?', shift: true });
    expect([opened, sheets()]).toEqual([['colours'], 1]);
    const [, second] = toolNames;
    press({ key: 'x', code: toolLooks[second].code });
    expect([opened.at(-1), actions.get().tool?.name]).toEqual(['art', second]);
    press({ key: 'escape' });
    expect(actions.get().tool?.name).toBe('pick');
  });

  test('that a tool has a use for is the tool’s', () => {
    const { actions, press } = bench();
    const { look } = actions.get();
    const tool = actions.get().tool;
    actions.takeTool({ ...tool, name: 'pick', cancel: () => false, key: (key: string) => key === 'c' } as never);
    expect(press({ key: 'c' })).toBe(true);
    expect(actions.get().look).toBe(look);
    expect(press({ key: 'j' })).toBe(true);
    expect(actions.get().snapping.mode).toBe('none');
  });

  test('of catching goes from all to none; over the grid alone where there is one', () => {
    const { actions, press } = bench();
    const modes = () =>
      [1, 2, 3].map(() => {
        press({ key: 'j' });
        return actions.get().snapping.mode;
      });
    expect(modes()).toEqual(['none', 'all', 'none']);
    actions.setSnapping({ mode: 'all', gridMm: 5 });
    expect(modes()).toEqual(['grid', 'none', 'all']);
  });

  test('of zoom keeps what is under the pointer there, and says truly where it is when the view is another', () => {
    const { actions, press } = bench();
    actions.showView({ scale: 2, x: 10, y: 10 });
    actions.movePointer({ x: 40, y: 30 });
    press({ key: '+' });
    const { view, pointer } = actions.get();
    expect(toScreen(view, 40, 30)).toEqual({ x: expect.closeTo(90, 9), y: expect.closeTo(70, 9) });
    expect(pointer).toEqual({ x: expect.closeTo(40, 9), y: expect.closeTo(30, 9) });
    actions.showView({ scale: 1, x: 0, y: 0 });
    expect(actions.get().pointer).toEqual({ x: expect.closeTo(90, 9), y: expect.closeTo(70, 9) });
  });

  test('of Enter finishes what is drawn, but not on a button', () => {
    const { actions, press } = bench();
    let finished = 0;
    actions.takeTool({ name: 'line', cancel: () => false, finish: () => finished++ } as never);
    expect(press({ key: 'enter', on: 'button' })).toBe(false);
    expect(press({ key: 'enter' })).toBe(true);
    expect(finished).toBe(1);
  });
});

test('the menu key asks for the menu, but not on a button, which has one of its own', () => {
  const { press, menus } = bench();
  expect(press({ key: 'contextmenu' })).toBe(true);
  expect(press({ key: 'f10', shift: true })).toBe(true);
  expect(press({ key: 'f10' })).toBe(false);
  expect(press({ key: 'f10', shift: true, on: 'button' })).toBe(false);
  expect(menus()).toBe(2);
});
