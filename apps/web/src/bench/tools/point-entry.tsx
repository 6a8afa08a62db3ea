import type { Point } from '@lambent/core/geometry';
import { fromMachine, toMachine } from '@lambent/core/machine';
import { useCallback, useEffect, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { t } from '../../words/words.ts';
import { ruler, toBed, toScreen } from '../bed/view.ts';
import { useBench, useBenchActions } from '../context.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { jobOf, machineOf } from '../state/document.ts';
import { DraftNumber } from './draft-number.tsx';
import { type ToolName, toolNames } from './tool.ts';
import { beginsNumber, useKeyToField } from './use-key-to-field.ts';

/** What is not placed by points: it picks up what is there, or follows the hand. */
const byHandOnly: readonly ToolName[] = ['pick', 'points', 'freehand'];
/** Tools whose points can be typed: each typed point is what a click there would be. */
const typedTools: ReadonlySet<string> = new Set(toolNames.filter((name) => !byHandOnly.includes(name)));

/**
 * Where a tool that waits for a point goes, typed: a digit or Enter brings it to hand. It begins at the mark, or in the
 * middle of what is seen. Enter is a click there.
 */
export function PointEntry() {
  const actions = useBenchActions();
  const toolName = useBench((state) => state.tool?.name);
  const waits = useBench(
    ({ tool, draft, textEdit }) => typedTools.has(tool?.name ?? '') && (draft?.fields.length ?? 0) === 0 && !textEdit,
  );
  const [point, setPoint] = useState<Point | null>(null);
  /** The same at once: a number that is settled by Enter is in it before the page has drawn it. */
  const latest = useRef(point);
  const change = useCallback((next: Point | null) => {
    latest.current = next;
    setPoint(next);
  }, []);
  const holder = useRef<HTMLFieldSetElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another tool begins anew
  useEffect(() => change(null), [toolName, waits]);

  useKeyToField(waits, holder, (event) => {
    const isEnter = event.key === 'Enter' && !isButton(event.target) && actions.get().draft === null;
    if (!beginsNumber(event.key) && !isEnter) return false;
    if (isEnter) event.preventDefault();
    flushSync(() => change(startOf(actions)));
    return true;
  });

  const view = useBench((state) => state.view);
  const { width, height } = useBench((state) => state.viewSize);
  const machine = useBench(machineOf);
  if (!point || !waits) return null;
  const told = toMachine(machine, point.x, point.y);
  const place = toScreen(view, point.x, point.y);
  const within = (px: number, most: number) => Math.max(4, Math.min(most, px)) + ruler;
  const along = (axis: 'x' | 'y') => ({
    label: axis.toUpperCase(),
    kind: 'length' as const,
    value: told[axis],
    isTyped: true,
    follows: true,
    take: (value: number) => {
      const now = latest.current ?? point;
      const next = { ...toMachine(machine, now.x, now.y), [axis]: value };
      change(fromMachine(machine, next.x, next.y));
      return undefined;
    },
    enter: () => {
      press(actions, latest.current ?? point);
      change(null);
    },
    leave: () => change(null),
  });
  return (
    <>
      <span
        className="pointer-events-none absolute z-20 size-2.5 -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-petrol bg-paper"
        style={{ left: place.x + ruler, top: place.y + ruler }}
        aria-hidden
      />
      <fieldset
        ref={holder}
        aria-label={t('Where it goes')}
        className="absolute z-20 flex items-center gap-1.5 rounded-lg border border-line bg-paper p-1.5 shadow-float"
        style={{ left: within(place.x + 18, width - 270), top: within(place.y + 18, height - 60) }}
      >
        <span className="pl-1 text-[12px] text-quiet">{t('Point')}</span>
        <DraftNumber {...along('x')} />
        <DraftNumber {...along('y')} />
      </fieldset>
    </>
  );
}

/** Where typing begins: at the mark, else in the middle of what is seen, in bed mm. */
function startOf(actions: BenchActions): Point {
  const state = actions.get();
  const { mark } = jobOf(state);
  if (mark) return { x: mark.x, y: mark.y };
  const { view, viewSize } = state;
  const { x, y } = toBed(view, viewSize.width / 2, viewSize.height / 2);
  return { x: Math.round(x), y: Math.round(y) };
}

/** Presses at a point of the bed, as a click there would. */
function press(actions: BenchActions, bed: Point): void {
  const { tool, view } = actions.get();
  const screen = toScreen(view, bed.x, bed.y);
  const point = { screen, bed, free: bed, snap: null, button: 0, shift: false, ctrl: false, alt: false, clicks: 1 };
  tool?.move(point);
  tool?.down(point);
  tool?.up(point);
}

function isButton(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.closest('button, a, [role=button], summary') !== null;
}
