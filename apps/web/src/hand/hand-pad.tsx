import type { MachineState } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import type { LengthUnit } from '@lambent/core/units';
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp, House } from 'lucide-react';
import { type KeyboardEvent, type ReactNode, useState } from 'react';
import { useShownUnit } from '../stores/length-unit.ts';
import { IconButton } from '../ui/button.tsx';
import { formatLength } from '../ui/figures.ts';
import { LengthField } from '../ui/length-field.tsx';
import { said, t } from '../words/words.ts';
import { isFreeByHand } from './hand-state.ts';
import { useHand } from './use-hand.ts';

/** How far one press moves the head, and the focus, in mm; round figures in each unit. */
const stepsIn: Readonly<Record<LengthUnit, { readonly head: readonly number[]; readonly focus: number }>> = {
  mm: { head: [0.1, 1, 10, 100], focus: 1 },
  cm: { head: [0.1, 1, 10, 100], focus: 1 },
  in: { head: [0.254, 2.54, 25.4, 101.6], focus: 1.27 },
};

/** Arrows as they lie on the bed; the bed's y points down. */
const arrows = {
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
} as const;
type Arrow = keyof typeof arrows;

interface Props {
  machine: Machine;
  state: MachineState;
  /** More that can be done with the head. */
  children?: ReactNode;
}

/** Moves a head by hand, the beam off: by buttons, by the arrow keys while the pad has the keyboard, to typed places. */
export function HandPad({ machine, state, children }: Props) {
  const hand = useHand(machine.id);
  const unit = useShownUnit();
  const { head: steps } = stepsIn[unit];
  /** Which of the steps. */
  const [chosen, choose] = useState(2);
  const step = steps[chosen];
  const isFree = isFreeByHand(state);
  const down = machine.origin === 'top-left' ? 1 : -1;
  const move = (arrow: Arrow) => {
    const { x, y } = arrows[arrow];
    hand.go({ dx: x * step, dy: y * step * down });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const isArrow = event.key in arrows;
    if (!isArrow || event.target instanceof HTMLInputElement) return;
    // What is selected on the bed stays where it is.
    event.preventDefault();
    event.stopPropagation();
    if (isFree) move(event.key as Arrow);
  };
  const arrow = (key: Arrow, label: string, icon: ReactNode) => (
    <IconButton label={label} disabled={!isFree} onClick={() => move(key)} className="border border-line bg-raised">
      {icon}
    </IconButton>
  );
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot be focused
    <div
      role="group"
      aria-label={t('Move the head of {{name}}', { name: machine.name })}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: the arrow keys move the head while this has the keyboard
      tabIndex={0}
      onKeyDown={onKeyDown}
      data-testid="hand-pad"
      className="flex flex-col gap-2.5 rounded-lg border border-line p-2.5 focus:border-petrol focus:outline-none focus:ring-1 focus:ring-petrol"
    >
      <div className="flex gap-3">
        <div className="grid grid-cols-[repeat(3,32px)] grid-rows-[repeat(3,32px)] gap-1">
          <span />
          {arrow('ArrowUp', t('Move the head up'), <ArrowUp size={16} aria-hidden />)}
          <span />
          {arrow('ArrowLeft', t('Move the head left'), <ArrowLeft size={16} aria-hidden />)}
          <IconButton
            label={t('Home')}
            disabled={!isFree || state.errand !== null}
            onClick={() => hand.tell('home')}
            className="border border-line bg-raised"
          >
            <House size={16} aria-hidden />
          </IconButton>
          {arrow('ArrowRight', t('Move the head right'), <ArrowRight size={16} aria-hidden />)}
          <span />
          {arrow('ArrowDown', t('Move the head down'), <ArrowDown size={16} aria-hidden />)}
        </div>
        <div className="flex min-w-0 flex-1 flex-col gap-1.5">
          <LengthField
            label="X"
            layout="row"
            unit={unit}
            disabled={!isFree}
            value={state.x}
            commit={(x) => hand.go({ x })}
          />
          <LengthField
            label="Y"
            layout="row"
            unit={unit}
            disabled={!isFree}
            value={state.y}
            commit={(y) => hand.go({ y })}
          />
          <p className="text-[12px] leading-4 text-quiet">{t('The beam is off. Arrow keys move the head too.')}</p>
        </div>
      </div>
      <fieldset className="flex items-center gap-1" aria-label={t('How far one press moves it')}>
        <span className="mr-1 text-[12px] text-quiet">{t('Step')}</span>
        {steps.map((mm, i) => (
          <button
            key={mm}
            type="button"
            aria-pressed={i === chosen}
            aria-label={t('Steps of {{mm}}', { mm: formatLength(mm, unit) })}
            onClick={() => choose(i)}
            className="figures h-7 min-w-9 pointer-coarse:min-w-11 rounded-md border border-line bg-raised px-1.5 text-[12px] hover:border-petrol aria-pressed:border-petrol aria-pressed:bg-petrol-soft aria-pressed:font-bold"
          >
            {formatLength(mm, unit, { bare: true })}
          </button>
        ))}
        <span className="text-[12px] text-quiet">{unit}</span>
      </fieldset>
      {children}
      <Switches machine={machine} state={state} isFree={isFree} />
    </div>
  );
}

/** What else of a machine is moved or switched by hand, as far as it has it. */
function Switches({ machine, state, isFree }: { machine: Machine; state: MachineState; isFree: boolean }) {
  const hand = useHand(machine.id);
  const unit = useShownUnit();
  const { focus } = stepsIn[unit];
  const hasPointer = machine.pointer !== undefined && state.orders.includes('pointer-on');
  const levels = machine.air?.levels ?? [];
  const rests = !isFree || state.errand !== null;
  if (!machine.focus && !hasPointer && levels.length === 0) return null;
  const chip =
    'h-7 rounded-md border border-line bg-raised px-2 text-[12px] hover:border-petrol disabled:opacity-50 aria-pressed:border-petrol aria-pressed:bg-petrol-soft aria-pressed:font-bold';
  return (
    <div className="flex flex-col gap-1.5 border-t border-line pt-2 text-[12px]">
      {machine.focus && (
        <div className="flex items-center gap-1.5">
          <span className="w-14 text-quiet">{t('Focus')}</span>
          <IconButton
            label={t('Focus up by {{focus}}', { focus: formatLength(focus, unit) })}
            disabled={rests}
            onClick={() => hand.focus(focus)}
            className="size-7 border border-line bg-raised"
          >
            <ArrowUp size={14} aria-hidden />
          </IconButton>
          <IconButton
            label={t('Focus down by {{focus}}', { focus: formatLength(focus, unit) })}
            disabled={rests}
            onClick={() => hand.focus(-focus)}
            className="size-7 border border-line bg-raised"
          >
            <ArrowDown size={14} aria-hidden />
          </IconButton>
          <span className="figures">{state.z === null ? '—' : formatLength(state.z, unit, { fixed: true })}</span>
        </div>
      )}
      {hasPointer && (
        <div className="flex items-center gap-1.5">
          <span className="w-14 text-quiet">{t('Pointer')}</span>
          <button
            type="button"
            aria-pressed={state.pointer === true}
            className={chip}
            onClick={() => hand.tell(state.pointer ? 'pointer-off' : 'pointer-on')}
          >
            {state.pointer ? t('shines') : t('switch it on')}
          </button>
        </div>
      )}
      {levels.length > 0 && (
        <fieldset className="flex items-center gap-1.5" aria-label={t('Air')}>
          <span className="w-14 text-quiet">{t('Air')}</span>
          {(['off', ...levels] as const).map((air) => (
            <button
              key={air}
              type="button"
              aria-pressed={state.air === null ? undefined : state.air === air}
              aria-label={t('Air {{air}}', { air: said(air) })}
              disabled={rests}
              className={chip}
              onClick={() => hand.air(air)}
            >
              {said(air)}
            </button>
          ))}
        </fieldset>
      )}
    </div>
  );
}
