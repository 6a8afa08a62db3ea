import { moveItems, removeItems, setMark } from '@lambent/core/edits';
import { type Box, growBox, isEmpty, type Point } from '@lambent/core/geometry';
import { snapPoint } from '@lambent/core/picking';
import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import { looks } from './bed/look.ts';
import { viewOf, zoomAt } from './bed/view.ts';
import { duplicate, group, order, ungroup } from './commands.ts';
import { type BenchActions, jobOf, machineOf, selectionBox, stages } from './store.ts';
import { chooseTool } from './tools/choose.ts';
import { rounded, snapField, snapReach } from './tools/snapping.ts';
import { toolNames } from './tools/tool.ts';
import { toolLooks } from './tools/tool-looks.tsx';

/** What the keys do, for the sheet that `?` opens. */
export const keySheet: readonly { keys: string; does: string }[] = [
  { keys: '1 – 7', does: 'open a stage' },
  { keys: 'Ctrl Z', does: 'undo' },
  { keys: 'Ctrl Shift Z', does: 'redo' },
  { keys: 'Ctrl A', does: 'select everything' },
  { keys: 'Esc', does: 'let go' },
  { keys: 'Del', does: 'delete the selection' },
  { keys: 'Ctrl D', does: 'duplicate; again, by the same move' },
  { keys: 'Ctrl G', does: 'group; with Shift, take apart' },
  { keys: 'Page Up, Down', does: 'forward, backward; with Shift, all the way' },
  { keys: 'Arrows', does: 'nudge by the step; Shift ×10, Alt ÷10' },
  { keys: 'Ctrl click', does: 'select one item of a group; or a double click' },
  { keys: 'Q W E … P, F, G, H', does: 'the tools, in the order of the dock' },
  { keys: 'J', does: 'catch points, or not; Alt suspends it' },
  { keys: 'Digits, Tab, Enter', does: 'type the size of what is being drawn' },
  { keys: 'M', does: 'mark the point under the pointer, caught' },
  { keys: 'Alt click', does: 'a piece of the selection stays put in aligning' },
  { keys: 'Wheel, + and −', does: 'zoom' },
  { keys: 'Space drag', does: 'move the view' },
  { keys: 'B', does: 'show the whole bed' },
  { keys: 'S', does: 'show the selection' },
  { keys: 'C', does: 'by operation, real colours, outlines, as burnt' },
];

const notTyped = ['range', 'checkbox', 'radio', 'file'];

/** Whether a key goes into a field. Undo does not, in a field where nothing is half typed. */
export function isTyping({ target, key, ctrlKey, metaKey }: KeyboardEvent): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement) {
    const undoes = (ctrlKey || metaKey) && ['z', 'y'].includes(key.toLowerCase());
    return !notTyped.includes(target.type) && !(undoes && target.dataset.settled === 'true');
  }
  return target.matches('textarea, select') || target.isContentEditable;
}

/** The Bench's keys. */
export function useShortcuts(actions: BenchActions, showKeys: () => void): void {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event) || event.defaultPrevented || isElsewhere(event)) return;
      const ctrl = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      const done = run(key, ctrl, event);
      if (done) event.preventDefault();
    };
    const run = (key: string, ctrl: boolean, event: KeyboardEvent): boolean => {
      if (ctrl) return runWithCtrl(actions, key, event.shiftKey);
      const tool = toolNames.find((name) => toolLooks[name].code === event.code);
      if (tool) {
        navigate(`/jobs/${actions.get().jobId}/art`, { replace: true });
        chooseTool(actions, tool);
        return true;
      }
      const stage = stages[Number(key) - 1];
      if (stage) {
        navigate(`/jobs/${actions.get().jobId}/${stage}`, { replace: true });
        return true;
      }
      if (key === '?') {
        showKeys();
        return true;
      }
      return runPlain(actions, key, event);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [actions, navigate, showKeys]);
}

function runWithCtrl(actions: BenchActions, key: string, shift: boolean): boolean {
  if (key === 'z') shift ? actions.redo() : actions.undo();
  else if (key === 'y') actions.redo();
  else if (key === 'd') duplicate(actions);
  else if (key === 'g') shift ? ungroup(actions) : group(actions);
  else if (key === 'a')
    actions.select(jobOf(actions.get()).drawing.items.flatMap((item) => (item.hidden ? [] : [item.id])));
  else return false;
  return true;
}

const arrows: Record<string, readonly [dx: number, dy: number]> = {
  arrowleft: [-1, 0],
  arrowright: [1, 0],
  arrowup: [0, -1],
  arrowdown: [0, 1],
};

function runPlain(actions: BenchActions, key: string, event: KeyboardEvent): boolean {
  const { selection, view, viewSize, look, tool, snapping, pointer, toolOptions } = actions.get();
  if (tool?.key?.(key, event.shiftKey)) return true;
  const arrow = arrows[key];
  // Arrows also move sliders and choose among radios; they nudge only where nothing else takes them.
  if (arrow && selection.size > 0 && !(event.target instanceof HTMLInputElement)) {
    const step = toolOptions.nudge * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1);
    actions.edit('nudge', (job) => moveItems(job, selection, arrow[0] * step, arrow[1] * step));
    return true;
  }
  switch (key) {
    case 'delete':
    case 'backspace':
      if (selection.size === 0) return false;
      deleteSelection(actions);
      return true;
    case 'pageup':
    case 'pagedown': {
      if (selection.size === 0) return false;
      const up = key === 'pageup';
      order(actions, event.shiftKey ? (up ? 'front' : 'back') : up ? 'forward' : 'backward');
      return true;
    }
    case 'escape':
      if (tool?.cancel()) return true;
      if (tool && tool.name !== 'pick') chooseTool(actions, 'pick');
      else actions.select([]);
      return true;
    case 'enter':
      if (!tool?.finish || event.target instanceof HTMLButtonElement) return false;
      tool.finish();
      return true;
    case 'j':
      actions.set({ snapping: { ...snapping, on: !snapping.on } });
      return true;
    case 'm':
      if (!pointer) return false;
      markPoint(actions, pointer, event.altKey);
      return true;
    case '+':
    case '=':
    case '-':
      actions.set({ view: zoomAt(view, viewSize.width / 2, viewSize.height / 2, key === '-' ? 0.8 : 1.25) });
      return true;
    case 'b':
      showBed(actions);
      return true;
    case 's':
      showSelection(actions);
      return true;
    case 'c':
      actions.set({ look: looks[(looks.indexOf(look) + 1) % looks.length] });
      return true;
    default:
      return false;
  }
}

/** Whether a list or a dialog that is open takes the key. */
function isElsewhere({ target }: KeyboardEvent): boolean {
  return target instanceof HTMLElement && target.closest('[role=listbox], [role=dialog], [role=radiogroup]') !== null;
}

/** Marks the point under the pointer, caught by what is near whatever tool is at hand. */
function markPoint(actions: BenchActions, pointer: Point, free: boolean): void {
  const state = actions.get();
  const snap = state.snapping.on && !free ? snapPoint(snapField(state), pointer, snapReach(state)) : null;
  const at = snap ?? rounded(pointer, state.view.scale);
  actions.edit('mark a point', (job) => setMark(job, { x: at.x, y: at.y }));
  actions.set({ lastPoint: { x: at.x, y: at.y } });
}

export function deleteSelection(actions: BenchActions): void {
  const { selection } = actions.get();
  const name = `delete ${selection.size} ${selection.size === 1 ? 'item' : 'items'}`;
  actions.edit(name, (job) => removeItems(job, selection));
}

export function showBed(actions: BenchActions): void {
  const state = actions.get();
  const { bedWidth, bedHeight } = machineOf(state);
  const { width, height } = state.viewSize;
  actions.set({ view: viewOf({ minX: 0, minY: 0, maxX: bedWidth, maxY: bedHeight }, width, height) });
}

/** Shows the selection as large as it fits; the whole bed when nothing is selected. */
export function showSelection(actions: BenchActions): void {
  const state = actions.get();
  const bounds = selectionBox(state);
  const { width, height } = state.viewSize;
  if (isEmpty(bounds)) showBed(actions);
  else actions.set({ view: viewOf(bounds, width, height, 80) });
}

/** Shows a place of the bed with some of what is around it. */
export function showPlace(actions: BenchActions, place: Box): void {
  const { width, height } = actions.get().viewSize;
  actions.set({ view: viewOf(growBox(place, 2), width, height, 80) });
}
