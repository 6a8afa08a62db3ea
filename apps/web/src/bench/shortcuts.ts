import { moveItems } from '@lambent/core/edits';
import type { Point } from '@lambent/core/geometry';
import { snapPoint } from '@lambent/core/picking';
import { t } from '../words/words.ts';
import { looks } from './bed/look.ts';
import { showBed, showSelection } from './bed/showing.ts';
import { toScreen, zoomAt } from './bed/view.ts';
import { pasteHeld } from './clipboard/use-clipboard.ts';
import { deleteSelection, duplicate, group, markAt, order, selectAll, ungroup } from './commands.ts';
import { closeGroup } from './open-group.ts';
import { isTool, type LetterName, letterNameOf, letterNames, letterOf, useOwnKeys } from './own-keys.ts';
import { type Stage, stageNames } from './stages/stage.ts';
import type { BenchActions } from './state/bench-state.ts';
import { chooseTool } from './tools/choose.ts';
import { rounded, snapField, snapReach } from './tools/snapping.ts';
import type { DrawingToolName } from './tools/tool.ts';

/** A key that went down, and what it is pressed on. */
export interface Stroke {
  /** As `KeyboardEvent` has it, in small letters. */
  readonly key: string;
  /** Which key of the keyboard it is, wherever its letter lies. */
  readonly code: string;
  readonly ctrl: boolean;
  readonly shift: boolean;
  readonly alt: boolean;
  /** On what it goes, where that may have a use for it of its own. */
  readonly on: 'field' | 'button' | null;
}

/** What shortcuts work on. */
export interface Keyed {
  readonly actions: BenchActions;
  readonly open: (stage: Stage) => void;
  readonly showKeys: () => void;
  readonly openMenu: () => void;
}

interface Shortcut {
  /** As tooltips and the sheet name them. */
  readonly keys: string;
  /** What they do, for the sheet that `?` opens; null where another line says it. */
  readonly does: string | null;
  /** Which strokes they are: `ctrl+shift+z`, a letter, or what a stroke is asked; none where the pointer does it. */
  readonly strokes: readonly string[] | ((stroke: Stroke) => boolean);
  /** @returns false where there was nothing to do, and the key is free for others */
  readonly run?: (keyed: Keyed, stroke: Stroke) => unknown;
}

const steps: Record<string, readonly [dx: number, dy: number]> = {
  arrowleft: [-1, 0],
  arrowright: [1, 0],
  arrowup: [0, -1],
  arrowdown: [0, 1],
};

/** Every key of the Bench: what it is, what is said of it and what it does. */
export const shortcuts = {
  tool: {
    keys: 'Q W E … P, F, G, H',
    does: t('the tools, in the order of the dock'),
    strokes: (stroke) => !stroke.ctrl && toolBy(stroke) !== null,
    run: ({ actions, open }, stroke) => {
      const name = toolBy(stroke);
      if (!name) return false;
      open('art');
      chooseTool(actions, name);
    },
  },
  stage: {
    keys: '1 – 7',
    does: t('open a stage'),
    strokes: stageNames.map((_, i) => String(i + 1)),
    run: ({ open }, { key }) => open(stageNames[Number(key) - 1]),
  },
  undo: { keys: 'Ctrl Z', does: t('undo'), strokes: ['ctrl+z'], run: ({ actions }) => actions.undo() },
  redo: {
    keys: 'Ctrl Shift Z',
    does: t('redo'),
    strokes: ['ctrl+shift+z', 'ctrl+y'],
    run: ({ actions }) => actions.redo(),
  },
  selectAll: {
    keys: 'Ctrl A',
    does: t('select everything'),
    strokes: ['ctrl+a'],
    run: ({ actions }) => selectAll(actions),
  },
  leave: {
    keys: 'Esc',
    does: t('deselect everything'),
    strokes: ['escape'],
    run: ({ actions }) => {
      const { tool } = actions.get();
      if (tool?.cancel()) return;
      if (tool && tool.name !== 'pick') chooseTool(actions, 'pick');
      else if (!closeGroup(actions)) actions.select([]);
    },
  },
  delete: {
    keys: 'Del',
    does: t('delete the selection'),
    strokes: ['delete', 'backspace'],
    run: ({ actions }) => whereSelected(actions, () => deleteSelection(actions)),
  },
  duplicate: {
    keys: 'Ctrl D',
    does: t('duplicate; again, by the same move'),
    strokes: ['ctrl+d'],
    run: ({ actions }) => duplicate(actions),
  },
  copy: { keys: 'Ctrl C', does: t('copy'), strokes: [] },
  cut: { keys: 'Ctrl X', does: t('cut out: copy, and delete'), strokes: [] },
  paste: { keys: 'Ctrl V', does: t('paste; in the same job beside what it was copied from'), strokes: [] },
  pasteInPlace: { keys: 'Ctrl Shift V', does: t('paste in place'), strokes: [] },
  pasteAtPointer: {
    keys: 'Ctrl Alt V',
    does: t('paste at the pointer'),
    strokes: ({ key, ctrl, alt }) => ctrl && alt && key === 'v',
    run: ({ actions }) => pasteHeld(actions, actions.get().pointer ?? 'aside'),
  },
  menu: {
    keys: 'Shift F10',
    does: t('what can be done with the selection; or a right click'),
    strokes: ({ key, shift, on }) => on !== 'field' && (key === 'contextmenu' || (shift && key === 'f10')),
    run: ({ openMenu }, { on }) => (on === 'button' ? false : openMenu()),
  },
  group: {
    keys: 'Ctrl G',
    does: t('group; with Shift, take apart'),
    strokes: ['ctrl+g'],
    run: ({ actions }) => group(actions),
  },
  ungroup: {
    keys: 'Ctrl Shift G',
    does: null,
    strokes: ['ctrl+shift+g'],
    run: ({ actions }) => ungroup(actions),
  },
  order: {
    keys: 'Page Up, Down',
    does: t('forward, backward; with Shift, all the way'),
    strokes: ['pageup', 'pagedown'],
    run: ({ actions }, { key, shift }) => {
      const up = key === 'pageup';
      return whereSelected(actions, () =>
        order(actions, shift ? (up ? 'front' : 'back') : up ? 'forward' : 'backward'),
      );
    },
  },
  nudge: {
    keys: 'Arrows',
    does: t('nudge by the step; Shift ×10, Alt ÷10'),
    // Arrows also move sliders and choose among radios; they nudge only where nothing else takes them.
    strokes: ({ key, ctrl, on }) => !ctrl && key in steps && on !== 'field',
    run: ({ actions }, { key, shift, alt }) => {
      const { selection, toolOptions } = actions.get();
      const step = toolOptions.nudge * (shift ? 10 : alt ? 0.1 : 1);
      const [dx, dy] = steps[key];
      return whereSelected(actions, () =>
        actions.edit('nudge', (job) => moveItems(job, selection, dx * step, dy * step)),
      );
    },
  },
  pickOne: { keys: 'Ctrl click', does: t('select one item of a group; a double click opens the group'), strokes: [] },
  catching: {
    keys: 'J',
    does: t('catch points, by the grid alone, or not; Alt suspends it'),
    strokes: isLetter('catching'),
    run: ({ actions }) => {
      const { mode, gridMm } = actions.get().snapping;
      actions.setSnapping({ mode: mode === 'none' ? 'all' : mode === 'all' && gridMm !== null ? 'grid' : 'none' });
    },
  },
  draft: { keys: 'Digits, Tab, Enter', does: t('type the size of what is being drawn'), strokes: [] },
  finish: {
    keys: 'Enter',
    does: null,
    strokes: ({ key, ctrl, on }) => !ctrl && key === 'enter' && on !== 'button',
    run: ({ actions }) => {
      const { tool } = actions.get();
      if (!tool?.finish) return false;
      tool.finish();
    },
  },
  mark: {
    keys: 'M',
    does: t('mark the point under the pointer, caught'),
    strokes: isLetter('mark'),
    run: ({ actions }, { alt }) => {
      const { pointer } = actions.get();
      if (!pointer) return false;
      markPoint(actions, pointer, alt);
    },
  },
  stays: { keys: 'Alt click', does: t('a piece of the selection stays put in aligning'), strokes: [] },
  zoom: {
    keys: 'Wheel, + and −',
    does: t('zoom, at the pointer'),
    strokes: ['+', '=', '-'],
    run: ({ actions }, { key }) => {
      const { view, viewSize, pointer } = actions.get();
      const middle = { x: viewSize.width / 2, y: viewSize.height / 2 };
      const { x, y } = pointer ? toScreen(view, pointer.x, pointer.y) : middle;
      actions.showView(zoomAt(view, x, y, key === '-' ? 0.8 : 1.25));
    },
  },
  pan: { keys: 'Space drag', does: t('move the view'), strokes: [] },
  showBed: {
    keys: 'B',
    does: t('show the whole bed'),
    strokes: isLetter('showBed'),
    run: ({ actions }) => showBed(actions),
  },
  showSelection: {
    keys: 'S',
    does: t('show the selection'),
    strokes: isLetter('showSelection'),
    run: ({ actions }) => showSelection(actions),
  },
  look: {
    keys: 'C',
    does: t('by operation, real colours, outlines, as burnt'),
    strokes: isLetter('look'),
    run: ({ actions }) => {
      const { look } = actions.get();
      actions.chooseLook(looks[(looks.indexOf(look) + 1) % looks.length]);
    },
  },
  sheet: { keys: '?', does: null, strokes: ['?'], run: ({ showKeys }) => showKeys() },
} satisfies Record<string, Shortcut>;

/** Words for a button, with the keys that do the same, as they are here; without, where those are switched off. */
export function withKeys(words: string, name: keyof typeof shortcuts): string {
  const keys = keysOf(name);
  return keys === null ? words : `${words} (${keys})`;
}

/** The keys of a shortcut, as they are here; null where they are switched off. */
export function keysOf(name: keyof typeof shortcuts): string | null {
  const { isOn } = useOwnKeys.getState();
  const letter = letterNames.find((known) => known === name);
  if (letter) return isOn ? letterOf(letter) : null;
  const { keys } = shortcuts[name];
  return !isOn && [...keys].length === 1 ? null : keys;
}

/** Words for the button of a tool, with its letter. */
export function withLetter(words: string, name: LetterName): string {
  return useOwnKeys.getState().isOn ? `${words} (${letterOf(name)})` : words;
}

function toolBy(stroke: Stroke): DrawingToolName | null {
  const name = letterNameOf(stroke);
  return name && isTool(name) ? name : null;
}

function isLetter(wanted: LetterName): (stroke: Stroke) => boolean {
  return (stroke) => !stroke.ctrl && letterNameOf(stroke) === wanted;
}

/** Does what a stroke stands for. @returns whether there was something to do */
export function runShortcut(keyed: Keyed, stroke: Stroke): boolean {
  const found = shortcutFor(stroke);
  // A tool at hand may have a use for any key that stands alone, but for those of the tools and stages.
  const isFree = found !== shortcuts.tool && found !== shortcuts.stage && !stroke.ctrl;
  if (isFree && keyed.actions.get().tool?.key?.(stroke.key, stroke.shift)) return true;
  return found?.run !== undefined && found.run(keyed, stroke) !== false;
}

/** The shortcut of a stroke; one with Shift is its own where there is one, and else as without. */
export function shortcutFor(stroke: Stroke): Shortcut | null {
  // A character alone is spoken by chance where words are spoken to the computer.
  if (!useOwnKeys.getState().isOn && !stroke.ctrl && !stroke.alt && [...stroke.key].length === 1) return null;
  const all: Shortcut[] = Object.values(shortcuts);
  const asked = all.find(({ strokes }) => typeof strokes === 'function' && strokes(stroke));
  if (asked) return asked;
  const ctrl = stroke.ctrl ? 'ctrl+' : '';
  const names = [...(stroke.shift ? [`${ctrl}shift+${stroke.key}`] : []), `${ctrl}${stroke.key}`];
  for (const name of names) {
    const found = all.find(({ strokes }) => typeof strokes !== 'function' && strokes.includes(name));
    if (found) return found;
  }
  return null;
}

function whereSelected(actions: BenchActions, edit: () => void): boolean {
  if (actions.get().selection.size === 0) return false;
  edit();
  return true;
}

/** Marks the point under the pointer, caught by what is near whatever tool is at hand. */
function markPoint(actions: BenchActions, pointer: Point, free: boolean): void {
  const state = actions.get();
  const snap = state.snapping.mode !== 'none' && !free ? snapPoint(snapField(state), pointer, snapReach(state)) : null;
  markAt(actions, snap ?? rounded(pointer, state.view.scale));
}
