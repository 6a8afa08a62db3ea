import type { DrawingRule } from '@lambent/core/formats';
import { formatLength } from '../ui/figures.ts';
import { OperationMark } from '../ui/operation-mark.tsx';
import { t } from '../words/words.ts';
import { nameOfOperation } from './name-of-operation.ts';

/** What is done with what is drawn how. */
export function DrawingRules({ rules }: { rules: readonly DrawingRule[] }) {
  return (
    <div className="overflow-x-auto rounded-xl border border-line bg-paper">
      <table className="w-full text-left">
        <thead className="text-[12px] text-quiet">
          <tr>
            <th scope="col" className="px-3 py-1.5 font-normal">
              {t('Drawn as')}
            </th>
            <th scope="col" className="px-3 py-1.5 font-normal">
              {t('Colour')}
            </th>
            <th scope="col" className="px-3 py-1.5 font-normal">
              {t('Is')}
            </th>
          </tr>
        </thead>
        <tbody>
          {rules.map((rule, i) => (
            <tr key={[rule.part, rule.colour, rule.operation, i].join(' ')} className="border-t border-line">
              <td className="px-3 py-1.5">{rule.part === 'fill' ? t('a fill') : lineOf(rule)}</td>
              <td className="px-3 py-1.5">
                {rule.colour === null ? (
                  t('any')
                ) : (
                  <span className="flex items-center gap-2">
                    <span
                      className="size-5 shrink-0 rounded border border-line"
                      style={{ background: rule.colour }}
                      aria-hidden
                    />
                    <span className="figures">{rule.colour}</span>
                  </span>
                )}
              </td>
              <td className="px-3 py-1.5">
                <span className="flex items-center gap-1.5">
                  <OperationMark operation={rule.operation} />
                  {nameOfOperation(rule.operation)}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** How wide a line is that a rule takes. */
function lineOf({ minWidthMm: min, maxWidthMm: max }: DrawingRule): string {
  const said = (mm: number) => formatLength(mm, 'mm');
  if (min !== null && max !== null) return t('a line {{min}} to {{max}} wide', { min: said(min), max: said(max) });
  if (max !== null) return t('a line up to {{max}} wide', { max: said(max) });
  return min === null ? t('a line') : t('a line from {{min}} wide', { min: said(min) });
}
