import { Plus, X } from 'lucide-react';
import { Button, IconButton } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { t } from '../words/words.ts';
import { Doubts } from './doubts.tsx';
import type { MachineDraft } from './machine-draft.ts';

const axes = [
  { value: 'x' as const, text: t('along X') },
  { value: 'y' as const, text: t('along Y') },
];

/** How far apart lines burn that are scanned there and back, as measured at some speeds. */
export function ScanOffsets({ draft, change, doubts }: MachineDraft) {
  const offsets = draft.scanOffsets ?? [];
  const set = (next: typeof offsets) => change({ scanOffsets: next.length > 0 ? next : undefined });
  const put = (index: number, part: Partial<(typeof offsets)[number]>) =>
    set(offsets.map((entry, i) => (i === index ? { ...entry, ...part } : entry)));
  const fastest = Math.max(0, ...offsets.map(({ speed }) => speed));
  return (
    <section className="border-t border-line py-3.5" aria-label={t('Scan offset')}>
      <h2 className="font-bold">{t('Scan offset')}</h2>
      <p className="mb-2 text-[12px] text-quiet">
        {t(
          'How far lines there and back burn apart: more than 0 where each goes too far. The plan corrects for it. A job’s Fit stage lays a card that shows it, under “Scan offset”.',
        )}
      </p>
      <Doubts about="scanOffsets" doubts={doubts}>
        <ul className="flex flex-col gap-1.5">
          {offsets.map(({ axis, speed, mm }, i) => (
            <li key={i} className="flex items-center gap-2">
              <Choice
                label={t('Axis of offset {{i}}', { i: i + 1 })}
                look="chip"
                value={axis}
                options={axes}
                choose={(next) => put(i, { axis: next })}
              />
              <span className="text-quiet">{t('at')}</span>
              <NumberField
                label={t('Speed of offset {{i}}', { i: i + 1 })}
                bare
                unit="mm/s"
                value={speed}
                least={0.1}
                most={20_000}
                commit={(next) => put(i, { speed: next })}
              />
              <NumberField
                label={t('Offset {{i}}', { i: i + 1 })}
                bare
                unit="mm"
                value={mm}
                least={-20}
                most={20}
                commit={(next) => put(i, { mm: next })}
              />
              <IconButton
                label={t('Take offset {{i}} away', { i: i + 1 })}
                onClick={() => set(offsets.filter((_, j) => j !== i))}
              >
                <X size={14} aria-hidden />
              </IconButton>
            </li>
          ))}
          <li>
            <Button
              disabled={offsets.length >= 40}
              onClick={() => set([...offsets, { axis: 'x', speed: fastest + 100, mm: 0 }])}
            >
              <Plus size={15} aria-hidden />
              {offsets.length === 0 ? t('An offset') : t('Another offset')}
            </Button>
          </li>
        </ul>
      </Doubts>
    </section>
  );
}
