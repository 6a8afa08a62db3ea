import { boundsAmong } from '@lambent/core/document';
import { isEmpty } from '@lambent/core/geometry';
import { ChevronDown, ChevronUp, Move, PanelBottomClose, PictureInPicture2 } from 'lucide-react';
import { type KeyboardEvent, type PointerEvent, useMemo, useRef } from 'react';
import { IconButton } from '../../ui/button.tsx';
import { t } from '../../words/words.ts';
import { useSelected } from '../context.ts';
import { cardNameId, NameField } from '../name-field.tsx';
import type { Stage } from '../stages/stage.ts';
import { nameOfSelection } from '../thing-names.ts';
import { dockCard, foldCard, moveCard, useCardPlace, useIsFolded } from './card-place.ts';
import { SizeFields } from './size-fields.tsx';

interface Props {
  readonly stage: Stage;
  /** Docked it lies under the drawer, and else over the bed. */
  readonly isDocked: boolean;
}

/** What is selected, with its place and size: docked under the drawer, or floating where it was put. */
export function SizeCard({ stage, isDocked }: Props) {
  const { drawing, selection } = useSelected();
  const isFolded = useIsFolded(stage);
  const { right, top } = useCardPlace();
  const card = useRef<HTMLElement>(null);
  const named = useMemo(() => nameOfSelection(drawing, selection), [drawing, selection]);
  const isShown = useMemo(() => !isEmpty(boundsAmong(drawing, selection)), [drawing, selection]);
  if (!isShown) return null;
  const count = selection.size;
  return (
    <section
      ref={card}
      aria-label={t('Size and place')}
      style={isDocked ? undefined : { right, top }}
      className={
        isDocked
          ? 'max-h-[60%] w-[296px] low:max-h-[45%] shrink-0 overflow-y-auto border-r border-t border-line bg-paper px-3.5 py-2'
          : 'absolute z-10 w-[288px] rounded-xl border border-line bg-paper p-3 shadow-float'
      }
    >
      <div className="flex items-center gap-0.5">
        <h2 className="flex min-w-0 flex-1 font-bold" title={named.usual}>
          {named.id === null ? (
            <span className="truncate">{named.usual}</span>
          ) : (
            <NameField
              key={named.id}
              {...named}
              id={named.id}
              elementId={cardNameId}
              className="-ml-1.5 flex-1 font-bold"
            />
          )}
        </h2>
        <span className="ml-1.5 shrink-0 text-[12px] text-quiet">
          {count === 1 ? t('1 item') : t('{{count}} items', { count })}
        </span>
        {!isDocked && <Grip card={card} />}
        <IconButton
          label={isDocked ? t('Float over the bed') : t('Dock under the drawer')}
          className="size-7 shrink-0"
          onClick={() => dockCard(!isDocked)}
        >
          {isDocked ? <PictureInPicture2 size={15} aria-hidden /> : <PanelBottomClose size={15} aria-hidden />}
        </IconButton>
        <IconButton
          label={isFolded ? t('Unfold this card') : t('Fold this card')}
          className="-mr-1 size-7 shrink-0"
          onClick={() => foldCard(stage, !isFolded)}
        >
          {isFolded ? <ChevronUp size={16} aria-hidden /> : <ChevronDown size={16} aria-hidden />}
        </IconButton>
      </div>
      {!isFolded && <SizeFields />}
    </section>
  );
}

const steps: Readonly<Record<string, readonly [right: number, top: number]>> = {
  ArrowLeft: [16, 0],
  ArrowRight: [-16, 0],
  ArrowUp: [0, -16],
  ArrowDown: [0, 16],
};

/** Moves the card that floats: by a drag, or by the arrow keys. */
function Grip({ card }: { card: { readonly current: HTMLElement | null } }) {
  const { right, top } = useCardPlace();
  const held = useRef<{ right: number; top: number; x: number; y: number } | null>(null);
  const move = (right: number, top: number) => {
    const room = card.current?.parentElement?.getBoundingClientRect();
    if (room) moveCard(right, top, room);
  };
  const onPointerDown = (event: PointerEvent<HTMLButtonElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = { right, top, x: event.clientX, y: event.clientY };
  };
  const onPointerMove = ({ clientX, clientY }: PointerEvent) => {
    const from = held.current;
    if (from) move(from.right - (clientX - from.x), from.top + clientY - from.y);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    move(right + step[0], top + step[1]);
  };
  return (
    <button
      type="button"
      aria-label={t('Move this card, by a drag or the arrow keys')}
      title={t('Move this card, by a drag or the arrow keys')}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={() => {
        held.current = null;
      }}
      onKeyDown={onKeyDown}
      className="inline-flex size-7 shrink-0 cursor-move touch-none items-center justify-center rounded-lg hover:bg-petrol-soft"
    >
      <Move size={15} aria-hidden />
    </button>
  );
}
