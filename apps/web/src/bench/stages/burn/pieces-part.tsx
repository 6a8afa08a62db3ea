import type { PiecesOfSize } from '@lambent/core/plan';
import { useState } from 'react';
import { Button } from '../../../ui/button.tsx';
import { formatLength } from '../../../ui/figures.ts';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { unitOf } from '../../state/document.ts';
import { pieceSizesOf } from '../../state/plan.ts';
import { Part } from '../drawer.tsx';

/** So many sizes are listed before one asks for more. */
const shownAtFirst = 6;

/** What comes out of the sheet, by size as it is once cut; a row lights up where its pieces are. */
export function PiecesPart() {
  const actions = useBenchActions();
  const sizes = useBench(pieceSizesOf);
  const previewS = useBench((state) => state.previewS);
  const [all, setAll] = useState(false);
  if (!sizes || sizes.length === 0) return null;
  const shown = all ? sizes : sizes.slice(0, shownAtFirst);
  return (
    <Part title={t('What falls out')}>
      {previewS !== null && <FreeByNow sizes={sizes} atS={previewS} />}
      <ul className="flex flex-col gap-0.5 text-[12.5px]" aria-label={t('Pieces by size')}>
        {shown.map((size) => (
          <li key={`${size.isWaste} ${size.isHeld} ${size.isRough} ${size.widthMm} ${size.heightMm}`}>
            <button
              type="button"
              className="flex w-full justify-between gap-3 rounded px-1 py-1 text-left hover:bg-table focus-visible:outline focus-visible:outline-petrol"
              onPointerEnter={() => actions.pointOut(size.itemIds)}
              onPointerLeave={() => actions.pointOut([])}
              onFocus={() => actions.pointOut(size.itemIds)}
              onBlur={() => actions.pointOut([])}
              onClick={() => actions.select(size.itemIds)}
            >
              <SizeRow size={size} atS={previewS} />
            </button>
          </li>
        ))}
      </ul>
      {sizes.some(({ isRough }) => isRough) && (
        <p className="text-[12px] text-warn">
          {t('Many cut outlines cross: more pieces, and smaller ones, come loose than are listed. Check says where.')}
        </p>
      )}
      {sizes.length > shownAtFirst && (
        <Button look="quiet" onClick={() => setAll(!all)}>
          {all ? t('Show fewer') : t('{{sizes}} more sizes', { sizes: sizes.length - shownAtFirst })}
        </Button>
      )}
    </Part>
  );
}

/** Sums of times in another order come to another number, by less than this, in seconds. */
const sameTime = 0.001;

/** How many of some pieces are free at a time of the preview. */
function freeAt({ freeAtS }: PiecesOfSize, atS: number): number {
  return freeAtS.filter((seconds) => seconds <= atS + sameTime).length;
}

function FreeByNow({ sizes, atS }: { sizes: readonly PiecesOfSize[]; atS: number }) {
  const all = sizes.reduce((sum, { count }) => sum + count, 0);
  const free = sizes.reduce((sum, size) => sum + freeAt(size, atS), 0);
  return (
    <p className="text-[12.5px]" data-testid="free-by-now">
      {free === 0 ? t('Nothing is free yet') : t('{{free}} of {{all}} are free by now', { free, all })}
    </p>
  );
}

/** @param atS at which time of the preview; null outside of it */
function SizeRow({ size, atS }: { size: PiecesOfSize; atS: number | null }) {
  const { count, isWaste, isHeld, widthMm, heightMm } = size;
  const unit = useBench(unitOf);
  const what = isWaste ? (count === 1 ? t('scrap') : t('scraps')) : count === 1 ? t('piece') : t('pieces');
  return (
    <>
      <span className={isWaste ? 'text-quiet' : undefined}>
        {count} {what}
        {isHeld
          ? t(', held by tabs')
          : atS !== null &&
            `, ${freeAt(size, atS) === count ? t('free') : t('{{size}} free', { size: freeAt(size, atS) })}`}
      </span>
      <span className="figures">
        {formatLength(widthMm, unit, { bare: true, fixed: true })} × {formatLength(heightMm, unit, { fixed: true })}
      </span>
    </>
  );
}
