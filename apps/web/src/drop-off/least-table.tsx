import type { OfferedMaterial } from '@lambent/contracts';
import { asLength, asSize, formatLength } from '../ui/figures.ts';
import { t } from '../words/words.ts';

/** How large sheets are, and how fine what is drawn on them may be. */
export function LeastTable({ materials }: { materials: readonly OfferedMaterial[] }) {
  const least = (mm: number) => (mm > 0 ? formatLength(mm, 'mm') : t('not known'));
  const heads = [t('Material'), t('Sheet'), t('Walls at least'), t('Letters at least')];
  return (
    <div className="overflow-x-auto rounded-xl border border-line bg-paper">
      <table className="w-full text-left">
        <thead className="text-[12px] text-quiet">
          <tr>
            {heads.map((head) => (
              <th key={head} scope="col" className="px-3 py-1.5 font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {materials.map(({ id, name, thicknessMm, tone, sheetWidth, sheetHeight, leastWallMm, leastLetterMm }) => (
            <tr key={id} className="border-t border-line">
              <td className="px-3 py-1.5">
                <span className="flex items-center gap-2">
                  <span
                    className="size-5 shrink-0 rounded border border-line"
                    style={{ background: tone }}
                    aria-hidden
                  />
                  {name} <span className="figures text-quiet">{asLength(thicknessMm, 'mm')}</span>
                </span>
              </td>
              <td className="figures whitespace-nowrap px-3 py-1.5">{asSize(sheetWidth, sheetHeight, 'mm')}</td>
              <td className="figures whitespace-nowrap px-3 py-1.5">{least(leastWallMm)}</td>
              <td className="figures whitespace-nowrap px-3 py-1.5">{least(leastLetterMm)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
