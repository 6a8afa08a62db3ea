import { topGroupOf } from '@lambent/core/document';
import { hideItems, lockItems, pinItems } from '@lambent/core/edits';
import type { Point } from '@lambent/core/geometry';
import {
  ArrowDownToLine,
  ArrowUpToLine,
  Clipboard,
  Copy,
  CopyPlus,
  Eye,
  EyeOff,
  FlipHorizontal2,
  FlipVertical2,
  Group as GroupIcon,
  Lock,
  LockOpen,
  MapPin,
  Maximize,
  Scissors,
  SquareDashedMousePointer,
  TextCursor,
  TextCursorInput,
  Trash2,
  Ungroup,
} from 'lucide-react';
import type { MenuEntry, MenuPart } from '../../ui/context-menu-place.ts';
import { t } from '../../words/words.ts';
import { showBed } from '../bed/showing.ts';
import { heldCopy } from '../clipboard/held.ts';
import { copyByButton, pasteHeld } from '../clipboard/use-clipboard.ts';
import { deleteSelection, duplicate, group, lock, markAt, order, selectAll, ungroup } from '../commands.ts';
import { mirroredCopy } from '../mirrored-copy.ts';
import { cardNameId } from '../name-field.tsx';
import { keysOf, shortcuts } from '../shortcuts.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { jobOf } from '../state/document.ts';
import { selectedItems } from '../state/hand.ts';
import { editText } from '../tools/text-tool.ts';
import { ownLayers } from '../use-own-layers.ts';

/** What a menu is called, and its lines. */
export interface Menu {
  readonly title: string;
  readonly parts: readonly MenuPart[];
}

/** What can be done with the selection, or with the bed where nothing is selected. @param point where it was asked for, in bed mm */
export function bedMenu(actions: BenchActions, point: Point | null): Menu {
  const { selection } = actions.get();
  if (selection.size === 0) return { title: t('The bed'), parts: [pasting(actions, point), ofBed(actions, point)] };
  return {
    title: t('The selection'),
    parts: [
      [...ofText(actions), ...naming(), ...copying(actions), ...pasting(actions, point).slice(0, 1)],
      grouping(actions),
      layers(actions),
      keeping(actions),
      [
        {
          text: t('Delete'),
          icon: Trash2,
          keys: shortcuts.delete.keys,
          run: () => deleteSelection(actions),
          isDangerous: true,
        },
      ],
    ],
  };
}

/** Leads to the name on the size card, where one thing is selected. */
function naming(): MenuEntry[] {
  const field = document.getElementById(cardNameId);
  return field ? [{ text: t('Rename'), icon: TextCursor, run: () => setTimeout(() => field.focus()) }] : [];
}

function ofText(actions: BenchActions): MenuEntry[] {
  const [item, ...more] = selectedItems(actions.get());
  if (more.length > 0 || item?.shape.kind !== 'text') return [];
  return [{ text: t('Edit the text'), icon: TextCursorInput, run: () => editText(actions, item.id) }];
}

function copying(actions: BenchActions): MenuPart {
  return [
    { text: t('Cut out'), icon: Scissors, keys: shortcuts.cut.keys, run: () => copyByButton(actions, true) },
    { text: t('Copy'), icon: Copy, keys: shortcuts.copy.keys, run: () => copyByButton(actions, false) },
    { text: t('Duplicate'), icon: CopyPlus, keys: shortcuts.duplicate.keys, run: () => duplicate(actions) },
    { text: t('Mirrored copy beside'), icon: FlipHorizontal2, run: () => mirroredCopy(actions, 'beside') },
    { text: t('Mirrored copy below'), icon: FlipVertical2, run: () => mirroredCopy(actions, 'below') },
  ];
}

function pasting(actions: BenchActions, point: Point | null): MenuPart {
  const disabled = heldCopy() === null;
  const here: MenuEntry = {
    text: t('Paste here'),
    icon: Clipboard,
    keys: shortcuts.pasteAtPointer.keys,
    run: () => pasteHeld(actions, point ?? 'aside'),
    disabled,
  };
  const inPlace: MenuEntry = {
    text: t('Paste in place'),
    keys: shortcuts.pasteInPlace.keys,
    run: () => pasteHeld(actions, 'in place'),
    disabled,
  };
  return [here, inPlace];
}

function grouping(actions: BenchActions): MenuPart {
  const { drawing } = jobOf(actions.get());
  const chosen = selectedItems(actions.get());
  const isGrouped = chosen.some((item) => topGroupOf(drawing, item) !== null);
  const part: MenuEntry[] = [];
  if (chosen.length > 1) {
    part.push({ text: t('Group'), icon: GroupIcon, keys: shortcuts.group.keys, run: () => group(actions) });
  }
  if (isGrouped) {
    part.push({
      text: t('Take the group apart'),
      icon: Ungroup,
      keys: shortcuts.ungroup.keys,
      run: () => ungroup(actions),
    });
  }
  if (drawing.items.length > chosen.length) {
    part.push({ text: t('To the front'), icon: ArrowUpToLine, run: () => order(actions, 'front') });
    part.push({ text: t('To the back'), icon: ArrowDownToLine, run: () => order(actions, 'back') });
  }
  return part;
}

/** The layers that the selection may be put on: those that are burnt, but for the one that it is on. */
function layers(actions: BenchActions): MenuPart {
  const state = actions.get();
  const { meaning } = state.prepared;
  const isOn = (layerId: string) => meaning.placed.get(layerId)?.some(({ item }) => state.selection.has(item.id));
  const used = ownLayers(meaning.layers).filter(({ id }) => (meaning.placed.get(id)?.length ?? 0) > 0 && !isOn(id));
  const pinned = selectedItems(state).some((item) => item.pinned !== null);
  const pin = (name: string, layerId: string | null) => () =>
    actions.edit(name, (job) => pinItems(job, actions.get().selection, layerId));
  return [
    ...used.slice(0, 4).map(
      ({ id, name }): MenuEntry => ({
        text: t('Put on {{name}}', { name }),
        run: pin(t('pin to {{name}}', { name }), id),
      }),
    ),
    ...(pinned ? [{ text: t('Leave to the colour key'), run: pin('unpin', null) }] : []),
  ];
}

function keeping(actions: BenchActions): MenuPart {
  const chosen = selectedItems(actions.get());
  const isLocked = chosen.some((item) => item.locked);
  const change = (name: string, make: typeof lockItems, on: boolean) => () =>
    actions.edit(name, (job) => make(job, actions.get().selection, on));
  return [
    isLocked
      ? { text: t('Unlock'), icon: LockOpen, run: change('unlock', lockItems, false) }
      : { text: t('Lock'), icon: Lock, run: () => lock(actions) },
    { text: t('Hide'), icon: EyeOff, run: change('hide', hideItems, true) },
  ];
}

function ofBed(actions: BenchActions, point: Point | null): MenuPart {
  const { items } = jobOf(actions.get()).drawing;
  const all = new Set(items.map(({ id }) => id));
  const part: MenuEntry[] = [
    {
      text: t('Select everything'),
      icon: SquareDashedMousePointer,
      keys: shortcuts.selectAll.keys,
      run: () => selectAll(actions),
      disabled: items.length === 0,
    },
  ];
  if (point) {
    const place = { x: Math.round(point.x * 100) / 100, y: Math.round(point.y * 100) / 100 };
    part.push({ text: t('Mark this point'), icon: MapPin, run: () => markAt(actions, place) });
  }
  if (items.some((item) => item.locked)) {
    const run = () => actions.edit(t('unlock everything'), (job) => lockItems(job, all, false));
    part.push({ text: t('Unlock everything'), icon: LockOpen, run });
  }
  if (items.some(({ hidden }) => hidden)) {
    part.push({
      text: t('Show what is hidden'),
      icon: Eye,
      run: () => actions.edit(t('show what is hidden'), (job) => hideItems(job, all, false)),
    });
  }
  part.push({
    text: t('Show the whole bed'),
    icon: Maximize,
    keys: keysOf('showBed') ?? undefined,
    run: () => showBed(actions),
  });
  return part;
}
