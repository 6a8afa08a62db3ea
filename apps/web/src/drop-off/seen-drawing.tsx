import type { PaintAnswer, SendingAnswer, SendingWishDto, SentPaint } from '@lambent/contracts';
import { CircleAlert, CircleCheck, CircleX, Info } from 'lucide-react';
import { formatLength } from '../ui/figures.ts';
import { OperationMark } from '../ui/operation-mark.tsx';
import { said, t } from '../words/words.ts';
import { nameOfOperation } from './name-of-operation.ts';

interface Props {
  readonly token: string;
  readonly sending: SendingAnswer;
  /** The colour of what it is to be made of. */
  readonly tone: string | undefined;
  readonly isLooking: boolean;
  readonly change: (what: Partial<SendingWishDto>) => void;
}

/** What the shop sees in a drawing: its picture, what each colour means, and what the checks found. */
export function SeenDrawing({ token, sending, tone, isLooking, change }: Props) {
  const { look, looks, wish } = sending;
  const operations = [...new Set(look.paints.flatMap(({ operation }) => operation ?? []))];
  const open = look.paints.filter(({ answer }) => answer !== null);
  const answer = (paint: SentPaint, next: PaintAnswer) => {
    const { part, colour, widthMm } = paint;
    const others = wish.answers.filter(
      (known) => known.part !== part || known.colour !== colour || known.widthMm !== widthMm,
    );
    change({ answers: [...others, { part, colour, widthMm, answer: next }] });
  };
  return (
    <>
      <div
        className={`flex h-64 items-center justify-center rounded-lg border border-line p-4 ${isLooking ? 'opacity-60' : ''}`}
        style={{ background: tone ?? '#F4F1E9' }}
      >
        <img
          src={`/api/drop-off/${token}/picture.svg?look=${looks}`}
          alt={t('What you sent, as it would burn')}
          className="max-h-full max-w-full"
        />
      </div>
      <p className="figures mt-1.5 text-center">
        {t('{{width}} wide, {{height}} high', {
          width: formatLength(look.widthMm, 'mm'),
          height: formatLength(look.heightMm, 'mm'),
        })}
      </p>
      {!look.saysSize && (
        <p className="text-center text-warn">{t('The file does not say how large it is. Is this right?')}</p>
      )}
      <ul aria-label={t('What the colours mean')} className="mt-2 mb-3 flex flex-wrap justify-center gap-x-5 gap-y-1">
        {operations.map((operation) => (
          <li key={operation} className="flex items-center gap-1.5">
            <OperationMark operation={operation} />
            {nameOfOperation(operation)}
          </li>
        ))}
      </ul>
      <ul aria-label={t('What we found')}>
        {open.map((paint) => (
          <OpenPaint
            key={`${paint.part} ${paint.colour} ${paint.widthMm}`}
            paint={paint}
            answer={(next) => answer(paint, next)}
          />
        ))}
        {look.findings
          .filter(({ code }) => code !== 'colour-without-meaning')
          .map(({ title, level, message }) => (
            <li key={`${title} ${message}`} className="flex gap-2.5 border-t border-line py-2.5">
              <LevelMark level={level} />
              <span>
                <span className="block font-bold">{said(title)}</span>
                <span className="text-quiet">{said(message)}</span>
              </span>
            </li>
          ))}
        <li className="flex gap-2.5 border-t border-line py-2.5">
          <CircleCheck size={18} className="shrink-0 text-settled" aria-hidden />
          <span className="font-bold">{t('Looked at and fine: {{fine}} other things', { fine: look.fine })}</span>
        </li>
      </ul>
    </>
  );
}

function LevelMark({ level }: { level: 'blocks' | 'warns' | 'notes' }) {
  if (level === 'blocks') return <CircleX size={18} className="shrink-0 text-stop" aria-hidden />;
  if (level === 'warns') return <CircleAlert size={18} className="shrink-0 text-warn" aria-hidden />;
  return <Info size={18} className="shrink-0 text-quiet" aria-hidden />;
}

const answers = (): readonly { readonly answer: PaintAnswer; readonly words: string }[] => [
  { answer: 'cut', words: t('Cut it') },
  { answer: 'score', words: t('Score it') },
  { answer: 'engrave', words: t('Engrave it') },
  { answer: 'note', words: t('Leave it out') },
  { answer: 'workshop', words: t('Let the workshop decide') },
];

/** A paint that means nothing in the shop: its sender may say what is meant. */
function OpenPaint({ paint, answer }: { paint: SentPaint; answer: (next: PaintAnswer) => void }) {
  return (
    <li className="flex gap-2.5 border-t border-line py-2.5">
      <span
        className="mt-0.5 size-[18px] shrink-0 rounded border border-line"
        style={{ background: paint.colour }}
        aria-hidden
      />
      <fieldset>
        <legend className="font-bold">
          {paint.part === 'fill' ? t('What is this filled colour to be?') : t('What are lines of this colour to be?')}
        </legend>
        <p className="text-quiet">
          {t('{{colour}} has no meaning here. Parts that are drawn in it: {{items}}.', {
            colour: paint.colour,
            items: paint.items,
          })}
        </p>
        <div className="mt-1.5 flex flex-wrap gap-1.5">
          {answers().map(({ answer: next, words }) => (
            <button
              key={next}
              type="button"
              aria-pressed={paint.answer === next}
              onClick={() => answer(next)}
              className="h-8 rounded-lg border border-line bg-raised px-2.5 font-semibold text-petrol hover:border-petrol aria-pressed:border-petrol aria-pressed:bg-petrol-soft pointer-coarse:h-11"
            >
              {words}
            </button>
          ))}
        </div>
      </fieldset>
    </li>
  );
}
