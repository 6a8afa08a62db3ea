import { type SolidSide, solidSides } from '@lambent/core/document';
import { Choice } from '../../ui/choice.tsx';
import { useBenchActions } from '../context.ts';
import { Part } from '../stages/drawer.tsx';
import type { Arriving } from '../state/arriving.ts';
import { chooseReading } from './arriving.ts';

const sideNames: Record<SolidSide, string> = {
  '+z': 'Top up',
  '-z': 'Bottom up',
  '+y': 'Back up',
  '-y': 'Front up',
  '+x': 'Right side up',
  '-x': 'Left side up',
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
    <Part title="Reading">
      {reading.pageCount > 1 && (
        <Choice
          label="Page"
          value={String(choices.page ?? 1)}
          options={Array.from({ length: reading.pageCount }, (_, i) => ({
            value: String(i + 1),
            text: `Page ${i + 1} of ${reading.pageCount}`,
          }))}
          choose={(page) => void chooseReading(actions, { page: Number(page) })}
        />
      )}
      {large && (
        <Choice
          label="Pixels"
          value={choices.pixels ?? 'reduced'}
          options={[
            { value: 'reduced', text: 'Fewer, quick to work with' },
            { value: 'all', text: 'All, slow to work with' },
          ]}
          choose={(pixels) => void chooseReading(actions, { pixels })}
        />
      )}
      {dashed && (
        <Choice
          label="Dashed lines"
          value={choices.dashes ?? 'solid'}
          options={[
            { value: 'solid', text: 'As solid lines' },
            { value: 'dashed', text: 'As their dashes' },
          ]}
          choose={(dashes) => void chooseReading(actions, { dashes })}
        />
      )}
      {clipped && (
        <Choice
          label="Clips"
          value={choices.clips ?? 'applied'}
          options={[
            { value: 'applied', text: 'Cut parts off' },
            { value: 'whole', text: 'Left out, parts are whole' },
          ]}
          choose={(clips) => void chooseReading(actions, { clips })}
        />
      )}
      {layered && (
        <Choice
          label="Layers"
          value={choices.layers ?? 'named'}
          options={[
            { value: 'named', text: 'As the file names them' },
            { value: 'by-colour', text: 'By colour' },
          ]}
          choose={(layers) => void chooseReading(actions, { layers })}
        />
      )}
      {reading.format === 'stl' && (
        <>
          <Choice
            label="How it lies"
            value={choices.up ?? null}
            empty="Thinnest side up"
            options={solidSides.map((side) => ({ value: side, text: sideNames[side] }))}
            choose={(up) => void chooseReading(actions, { up })}
          />
          <Choice
            label="Where it is cut"
            value={String(choices.cutAt ?? 0.5)}
            options={[
              { value: 'outline', text: 'All that it covers' },
              ...[0.05, 0.25, 0.5, 0.75, 0.95].map((share) => ({
                value: String(share),
                text: `At ${Math.round(share * 100)} % of its height`,
              })),
            ]}
            choose={(cutAt) => void chooseReading(actions, { cutAt: cutAt === 'outline' ? cutAt : Number(cutAt) })}
          />
        </>
      )}
    </Part>
  );
}
