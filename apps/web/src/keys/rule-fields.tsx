import type { Rule } from '@lambent/core/colours';
import type { Layer, PaintPart } from '@lambent/core/document';
import type { ReactNode } from 'react';
import { Choice } from '../ui/choice.tsx';
import { LengthField } from '../ui/length-field.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { OperationMark } from '../ui/operation-mark.tsx';
import { t } from '../words/words.ts';
import { ColourField } from './colour-field.tsx';

type Colouring = 'colour' | 'any' | 'grey';

/** One rule as a line: which half of a paint, its colour, how far off, its width, and the layer. */
export function RuleFields(props: {
  rule: Rule;
  layers: readonly Layer[];
  change: (rule: Rule) => void;
  children: [ReactNode, ReactNode];
}) {
  const { rule, layers, change, children } = props;
  const colouring: Colouring = rule.grey ? 'grey' : rule.colour === null ? 'any' : 'colour';
  const [before, after] = children;
  return (
    <div className="flex gap-2">
      <span className="flex h-7 items-center">{before}</span>
      <div className="flex min-w-0 flex-1 flex-wrap items-center gap-x-1.5 gap-y-2">
        <Choice<PaintPart>
          label={t('Which half of a paint')}
          look="chip"
          value={rule.part}
          options={[
            { value: 'stroke', text: t('Stroke') },
            { value: 'fill', text: t('Fill') },
          ]}
          choose={(part) =>
            change({ ...rule, part, ...(part === 'fill' ? { minWidthMm: null, maxWidthMm: null } : {}) })
          }
        />
        <Choice<Colouring>
          label={t('Which colours')}
          look="chip"
          value={colouring}
          options={[
            { value: 'colour', text: t('of a colour') },
            { value: 'grey', text: t('of a grey') },
            { value: 'any', text: t('of any colour') },
          ]}
          choose={(kind) =>
            change({
              ...rule,
              colour: kind === 'colour' ? (rule.colour ?? '#000000') : null,
              grey: kind === 'grey' ? (rule.grey ?? { from: 0, to: 50 }) : null,
            })
          }
        />
        {colouring === 'colour' && rule.colour !== null && (
          <>
            <ColourField colour={rule.colour} change={(colour) => change({ ...rule, colour })} />
            <div className="w-[104px]" title={t('How far off a colour may be, as CIEDE2000: about 1 is just seen')}>
              <NumberField
                label={t('within')}
                value={rule.tolerance}
                least={0}
                most={100}
                commit={(tolerance) => change({ ...rule, tolerance })}
              />
            </div>
          </>
        )}
        {rule.grey && <GreyRange grey={rule.grey} change={(grey) => change({ ...rule, grey })} />}
        {rule.part === 'stroke' && <Widths rule={rule} change={change} />}
        <span className="text-quiet" aria-hidden>
          →
        </span>
        <Choice
          label={t('Layer of the rule')}
          look="chip"
          value={layers.some(({ id }) => id === rule.layerId) ? rule.layerId : null}
          options={layers.map(({ id, name, operation }) => ({
            value: id,
            text: name,
            mark: <OperationMark operation={operation} />,
          }))}
          choose={(layerId) => change({ ...rule, layerId })}
        />
      </div>
      {after}
    </div>
  );
}

function GreyRange(props: {
  grey: { from: number; to: number };
  change: (grey: { from: number; to: number }) => void;
}) {
  const { grey, change } = props;
  return (
    <span className="flex items-center gap-1.5" title={t('Lightness: 0 is black, 100 is white')}>
      <span
        className="h-5 w-10 rounded border border-line"
        style={{ background: `linear-gradient(90deg, lab(${grey.from}% 0 0), lab(${grey.to}% 0 0))` }}
        aria-hidden
      />
      <span className="w-[88px]">
        <NumberField
          label={t('from')}
          value={grey.from}
          least={0}
          most={grey.to}
          commit={(from) => change({ ...grey, from })}
        />
      </span>
      <span className="w-[76px]">
        <NumberField
          label={t('to')}
          value={grey.to}
          least={grey.from}
          most={100}
          commit={(to) => change({ ...grey, to })}
        />
      </span>
    </span>
  );
}

type Width = 'any' | 'up-to' | 'from' | 'between';

function Widths({ rule, change }: { rule: Rule; change: (rule: Rule) => void }) {
  const { minWidthMm: min, maxWidthMm: max } = rule;
  const kind: Width = min === null ? (max === null ? 'any' : 'up-to') : max === null ? 'from' : 'between';
  return (
    <>
      <Choice<Width>
        label={t('Which widths')}
        look="chip"
        value={kind}
        options={[
          { value: 'any', text: t('any width') },
          { value: 'up-to', text: t('up to') },
          { value: 'from', text: t('wider than') },
          { value: 'between', text: t('between') },
        ]}
        choose={(next) =>
          change({
            ...rule,
            minWidthMm: next === 'from' || next === 'between' ? (min ?? 0.3) : null,
            maxWidthMm: next === 'up-to' || next === 'between' ? (max ?? Math.max(0.3, min ?? 0)) : null,
          })
        }
      />
      {min !== null && (
        <div className="w-[92px]">
          <LengthField
            label={t('Least width')}
            bare
            layout="row"
            unit="mm"
            value={min}
            takes="not-below-0"
            commit={(mm) => {
              if (max !== null && mm > max) return t('Not more than {{max}} mm.', { max });
              change({ ...rule, minWidthMm: mm });
              return undefined;
            }}
          />
        </div>
      )}
      {max !== null && (
        <div className="w-[92px]">
          <LengthField
            label={t('Greatest width')}
            bare
            layout="row"
            unit="mm"
            value={max}
            takes="not-below-0"
            commit={(mm) => {
              if (min !== null && mm < min) return t('Not less than {{min}} mm.', { min });
              change({ ...rule, maxWidthMm: mm });
              return undefined;
            }}
          />
        </div>
      )}
    </>
  );
}
