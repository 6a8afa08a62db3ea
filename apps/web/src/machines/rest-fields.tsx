import { bedBox, type Machine, toMachine } from '@lambent/core/machine';
import { Choice } from '../ui/choice.tsx';
import { Labelled } from '../ui/labelled.tsx';
import { parsePlain } from '../ui/plain-number.ts';
import { TypedField } from '../ui/typed-field.tsx';
import { t } from '../words/words.ts';
import { Doubts } from './doubts.tsx';
import { PlaceField } from './figure-field.tsx';
import type { MachineDraft } from './machine-draft.ts';

type Rest = 'zero' | 'back left' | 'back right' | 'front left' | 'front right' | 'place';

const words: Readonly<Record<Rest, string>> = {
  zero: t('At its zero'),
  'back left': t('Back left'),
  'back right': t('Back right'),
  'front left': t('Front left'),
  'front right': t('Front right'),
  place: t('At a place'),
};

/** A corner of the bed, in the machine's own frame. */
function cornerOf(machine: Machine, rest: Rest): { x: number; y: number } {
  const { minX, minY, maxX, maxY } = bedBox(machine);
  return toMachine(machine, rest.endsWith('right') ? maxX : minX, rest.startsWith('back') ? minY : maxY);
}

function restOf(machine: Machine): Rest {
  const { rest } = machine;
  if (!rest) return 'zero';
  const corners = ['back left', 'back right', 'front left', 'front right'] as const;
  const isThere = (corner: Rest) => {
    const { x, y } = cornerOf(machine, corner);
    return x === rest.x && y === rest.y;
  };
  return corners.find(isThere) ?? 'place';
}

/** Where the head and the focus rest after a run. */
export function RestFields(props: MachineDraft) {
  const { draft, change, doubts } = props;
  const { focus, restFocus } = draft;
  const rest = restOf(draft);
  const choose = (next: Rest) => {
    if (next === 'zero') change({ rest: undefined });
    else if (next === 'place') change({ rest: { x: draft.bedWidth / 2, y: 0 } });
    else change({ rest: cornerOf(draft, next) });
  };
  return (
    <>
      <Labelled label={t('Rests after a run')}>
        <Choice
          look="slim"
          label={t('Rests after a run')}
          value={rest}
          options={Object.entries(words).map(([value, text]) => ({ value: value as Rest, text }))}
          choose={choose}
        />
      </Labelled>
      {rest !== 'zero' && <PlaceField {...props} name="rest" label={t('Rests at X, Y')} />}
      {focus && (
        <Doubts about="restFocus" doubts={doubts}>
          <TypedField<number | null>
            label={t('Focus rests at')}
            placeholder={t('on the stock')}
            text={restFocus === undefined ? '' : String(restFocus)}
            unit="mm"
            parse={(text) =>
              text.trim() === '' ? { ok: true, value: null } : parsePlain(text, 'mm', t('Type a height.'))
            }
            commit={(next) => {
              change({ restFocus: next ?? undefined });
              return undefined;
            }}
          />
        </Doubts>
      )}
    </>
  );
}
