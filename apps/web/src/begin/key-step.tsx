import { type ColourKey, startingKeys } from '@lambent/core/colours';
import { operationOf } from '@lambent/core/operations';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { inSentence } from '../stores/numbers.ts';
import { asLength } from '../ui/figures.ts';
import { said, t } from '../words/words.ts';
import { StepFrame } from './step-frame.tsx';

/** The first colour key: one of three to begin with, which takes the place of the one that a new shop has. */
export function KeyStep({ next }: { next: () => void }) {
  const queries = useQueryClient();
  const [first] = useQuery({ queryKey: ['keys'], queryFn: api.keys }).data ?? [];
  const choose = async (key: ColourKey) => {
    try {
      const [begun] = await queries.ensureQueryData({ queryKey: ['keys'], queryFn: api.keys });
      await (begun ? api.changeKey({ ...key, id: begun.id }) : api.addKey(key));
      await queries.invalidateQueries({ queryKey: ['keys'] });
    } catch (error) {
      toast.error(sentenceOf(error));
    }
  };
  return (
    <StepFrame
      title={t('A colour key')}
      about={t(
        'A key says what the colours and lines of a drawing mean. Begin with one of these; change it, or add others for other people’s drawings, under Colour keys.',
      )}
      skip={next}
      skipText={t('On to the first job')}
    >
      <div role="radiogroup" aria-label={t('The key to begin with')} className="grid gap-3 lg:grid-cols-3">
        {startingKeys.map(({ about, key }) => (
          // biome-ignore lint/a11y/useSemanticElements: a card that is pressed, with more in it than a radio button holds
          <button
            key={key.name}
            type="button"
            role="radio"
            aria-checked={first?.name === key.name}
            onClick={() => void choose(key)}
            className="flex flex-col rounded-xl border border-line bg-raised p-3.5 text-left hover:border-petrol aria-checked:border-petrol aria-checked:bg-petrol-soft"
          >
            <span className="block font-semibold">{key.name}</span>
            <span className="mb-2.5 block text-quiet">{about}</span>
            <span className="flex flex-col gap-1">
              {key.rules.slice(0, 4).map((rule) => (
                <RuleLine key={JSON.stringify(rule)} rule={rule} />
              ))}
            </span>
          </button>
        ))}
      </div>
    </StepFrame>
  );
}

function RuleLine({ rule }: { rule: ColourKey['rules'][number] }) {
  const { colour, part, minWidthMm, maxWidthMm, layerId } = rule;
  const operation = layerId as Parameters<typeof operationOf>[0];
  const width =
    minWidthMm === null && maxWidthMm === null
      ? ''
      : maxWidthMm === null
        ? t('from {{minWidthMm}}', { minWidthMm: asLength(minWidthMm ?? 0) })
        : inSentence(t('{{minWidthMm}} to {{maxWidthMm}} mm', { minWidthMm: minWidthMm ?? 0, maxWidthMm }));
  return (
    <span className="flex items-center gap-2 text-[12px]">
      <svg width={28} height={12} aria-hidden>
        {part === 'fill' ? (
          <rect width={28} height={12} rx={2} fill={colour ?? 'var(--quiet)'} />
        ) : (
          <line
            x1={1}
            x2={27}
            y1={6}
            y2={6}
            stroke={colour ?? 'var(--quiet)'}
            strokeWidth={minWidthMm ? 4 * minWidthMm + 1.4 : 1.4}
          />
        )}
      </svg>
      <span className="text-quiet">
        {part === 'fill' ? t('fill') : t('line')} {width}
      </span>
      <span className="ml-auto font-semibold">{said(operationOf(operation).name)}</span>
    </span>
  );
}
