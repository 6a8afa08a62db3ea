import { type SolidSide, solidSides } from '@lambent/core/document';
import { Choice } from '../../ui/choice.tsx';
import { t } from '../../words/words.ts';
import { useBenchActions } from '../context.ts';
import { Part } from '../stages/drawer.tsx';
import type { Arriving } from '../state/arriving.ts';
import { chooseReading } from './arriving.ts';

const sideNames: Record<SolidSide, string> = {
  '+z': t('Top up'),
  '-z': t('Bottom up'),
  '+y': t('Back up'),
  '-y': t('Front up'),
  '+x': t('Right side up'),
  '-x': t('Left side up'),
};

/** What can be chosen of how the file is read; each choice reads it anew. */
export function ReadingPart({ arriving }: { arriving: Arriving }) {
  const actions = useBenchActions();
  const { reading, choices } = arriving;
  const has = (...codes: string[]) => reading.notes.some(({ code }) => codes.includes(code));
  const dashed = has('dashes', 'dashes-as-solid');
  const clipped = has('clipped', 'clipped-away', 'clip-not-applied');
  const layered = has('layers-taken') || choices.layers === 'by-colour';
  const large = has('very-many-pixels');
  if (reading.pageCount < 2 && !large && !dashed && !clipped && !layered && reading.format !== 'stl') return null;
  return (
    <Part title={t('Reading')}>
      {reading.pageCount > 1 && (
        <Choice
          label={t('Page')}
          value={String(choices.page ?? 1)}
          options={Array.from({ length: reading.pageCount }, (_, i) => ({
            value: String(i + 1),
            text: t('Page {{i}} of {{pageCount}}', { i: i + 1, pageCount: reading.pageCount }),
          }))}
          choose={(page) => void chooseReading(actions, { page: Number(page) })}
        />
      )}
      {large && (
        <Choice
          label={t('Pixels')}
          value={choices.pixels ?? 'reduced'}
          options={[
            { value: 'reduced', text: t('Fewer, quick to work with') },
            { value: 'all', text: t('All, slow to work with') },
          ]}
          choose={(pixels) => void chooseReading(actions, { pixels })}
        />
      )}
      {dashed && (
        <Choice
          label={t('Dashed lines')}
          value={choices.dashes ?? 'solid'}
          options={[
            { value: 'solid', text: t('As solid lines') },
            { value: 'dashed', text: t('As their dashes') },
          ]}
          choose={(dashes) => void chooseReading(actions, { dashes })}
        />
      )}
      {clipped && (
        <Choice
          label={t('Clips')}
          value={choices.clips ?? 'applied'}
          options={[
            { value: 'applied', text: t('Cut parts off') },
            { value: 'whole', text: t('Left out, parts are whole') },
          ]}
          choose={(clips) => void chooseReading(actions, { clips })}
        />
      )}
      {layered && (
        <Choice
          label={t('Layers')}
          value={choices.layers ?? 'named'}
          options={[
            { value: 'named', text: t('As the file names them') },
            { value: 'by-colour', text: t('By colour') },
          ]}
          choose={(layers) => void chooseReading(actions, { layers })}
        />
      )}
      {reading.format === 'stl' && (
        <>
          <Choice
            label={t('How it lies')}
            value={choices.up ?? null}
            empty={t('Thinnest side up')}
            options={solidSides.map((side) => ({ value: side, text: sideNames[side] }))}
            choose={(up) => void chooseReading(actions, { up })}
          />
          <Choice
            label={t('Where it is cut')}
            value={String(choices.cutAt ?? 0.5)}
            options={[
              { value: 'outline', text: t('All that it covers') },
              ...[0.05, 0.25, 0.5, 0.75, 0.95].map((share) => ({
                value: String(share),
                text: t('At {{share}} % of its height', { share: Math.round(share * 100) }),
              })),
            ]}
            choose={(cutAt) => void chooseReading(actions, { cutAt: cutAt === 'outline' ? cutAt : Number(cutAt) })}
          />
        </>
      )}
    </Part>
  );
}
