import type { Built } from '@lambent/core/builders';
import type { LengthUnit } from '@lambent/core/units';
import { Check, TriangleAlert } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { asArea } from '../../../../../ui/area.ts';
import { Button } from '../../../../../ui/button.tsx';
import { fixed, formatLength } from '../../../../../ui/figures.ts';
import { t } from '../../../../../words/words.ts';
import type { BuiltAnswer } from '../../../../../workers/build-work.ts';
import type { Marks } from './assembly-scene.ts';

/** Three dimensions take a package that is fetched when the card is opened first. */
const PutTogether = lazy(async () => ({ default: (await import('./put-together.tsx')).PutTogether }));

type Good = Extract<BuiltAnswer, { ok: true }>;

interface Props {
  answer: Good;
  unit: LengthUnit;
  /** Whether the numbers have become ones that cannot be since. */
  isOld: boolean;
  marks: Marks;
  lit: string | null;
  light: (partId: string | null) => void;
  /** The size of the sheet that parts are cut from, in mm²; null where there is none. */
  sheetMm2: number | null;
}

/** What was built, over the bed: put together, in figures, in words, and whether it goes together. */
export function TogetherCard({ answer, unit, isOld, marks, lit, light, sheetMm2 }: Props) {
  const { built, figures } = answer;
  const [isFolded, setFolded] = useState(false);
  if (isFolded) {
    return (
      <Button className="fixed right-3 top-16 z-20 shadow-float" onClick={() => setFolded(false)}>
        {t('Put together')}
      </Button>
    );
  }
  return (
    <aside
      aria-label={t('Put together')}
      className="fixed right-3 top-16 z-20 flex max-h-[calc(100vh-220px)] w-[300px] flex-col overflow-y-auto rounded-xl border border-line bg-paper px-3.5 py-3 shadow-float"
    >
      <div className="mb-2 flex items-baseline gap-2">
        <h2 className="font-bold">{t('Put together')}</h2>
        <span className="flex-1 text-[12px] text-quiet">{isOld ? t('as it was last') : t('drag to turn it')}</span>
        <Button look="quiet" className="-my-1 -mr-2" onClick={() => setFolded(true)}>
          {t('Hide')}
        </Button>
      </div>
      <Suspense fallback={<div aria-busy className="h-[220px] rounded-lg bg-table" />}>
        <PutTogether built={built} marks={marks} lit={lit} light={light} />
      </Suspense>
      <div data-testid="built-figures" className={`mt-2 border-t border-line pt-2 ${isOld ? 'opacity-60' : ''}`}>
        <Figures answer={answer} unit={unit} sheetMm2={sheetMm2} />
        <GoesTogether built={built} answer={answer} />
      </div>
      <details className="mt-2 text-[12px]">
        <summary className="cursor-pointer text-quiet">{t('Parts in words')}</summary>
        <ul className="mt-1 flex flex-col gap-1">
          {figures.parts.map(({ id, name, widthMm, heightMm, meets }) => (
            <li key={id}>
              <b>{name}</b>, {formatLength(widthMm, unit, { bare: true })} × {formatLength(heightMm, unit)}
              {meets.length > 0 && (
                <span className="text-quiet">{t(', meets {{meets}}', { meets: meets.join(', ') })}</span>
              )}
            </li>
          ))}
        </ul>
      </details>
    </aside>
  );
}

function Figures({ answer, unit, sheetMm2 }: { answer: Good; unit: LengthUnit; sheetMm2: number | null }) {
  const { parts, insideMm, outsideMm, holdsMm3, cutMm, areaMm2, playMm, notes } = answer.figures;
  const size = (mm: readonly number[]) => mm.map((side) => formatLength(side, unit, { bare: true })).join(' × ');
  const share = sheetMm2 ? ` (${Math.round((100 * areaMm2) / sheetMm2)} %)` : '';
  const rows = [
    [t('Parts'), String(parts.length)],
    ...(insideMm ? [[t('Inside, {{unit}}', { unit }), size(insideMm)]] : []),
    [t('Outside, {{unit}}', { unit }), size(outsideMm)],
    ...(holdsMm3 === null ? [] : [[t('Holds'), `${fixed(holdsMm3 / 1e6, 2)} l`]]),
    [t('Cut'), `${fixed(cutMm / 1000, 2)} m`],
    [sheetMm2 ? t('Stock (of the sheet)') : t('Stock'), `${asArea(areaMm2, unit, 0)}${share}`],
    ...(answer.built.assembly.joints.length === 0 ? [] : [[t('Play in each joint'), formatLength(playMm, unit)]]),
    ...notes.map(({ label, value, isLength }) => [label, isLength ? formatLength(value, unit) : String(value)]),
  ];
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-3 text-[12px]">
      {rows.map(([words, figure]) => (
        <div key={words} className="contents">
          <dt className="text-quiet">{words}</dt>
          <dd className="figures text-right">{figure}</dd>
        </div>
      ))}
    </dl>
  );
}

function GoesTogether({ built, answer }: { built: Built; answer: Good }) {
  const { goesTogether } = answer.figures.assembly;
  if (!goesTogether) {
    return (
      <p className="mt-1 flex items-start gap-1.5 text-[12px] text-stop">
        <TriangleAlert size={14} className="mt-0.5 shrink-0" aria-hidden /> {t('Does not go together.')}
      </p>
    );
  }
  const words = built.parts.length > 1 ? t('nothing overlaps, nothing gapes') : t('nothing overlaps');
  return (
    <p className="mt-1 flex items-start gap-1.5 text-[12px] text-settled">
      <Check size={14} className="mt-0.5 shrink-0" aria-hidden /> {t('Goes together: {{words}}.', { words })}
    </p>
  );
}
