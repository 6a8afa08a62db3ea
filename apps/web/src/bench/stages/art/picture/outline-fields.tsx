import type { TraceSettings } from '@lambent/core/document';
import { Choice } from '../../../../ui/choice.tsx';
import { NumberField } from '../../../../ui/number-field.tsx';
import { Tick } from '../../../../ui/tick.tsx';
import { Part } from '../../drawer.tsx';

export interface FieldsProps {
  settings: TraceSettings;
  set: (part: Partial<TraceSettings>) => void;
}

/** What is figure, what is ground, and what is too small to be either. */
export function FigureFields({ settings, set }: FieldsProps) {
  const { makes, parting, level, isLight, specksMm2, holesMm2, isOuterOnly } = settings;
  const isAround = makes === 'outlines';
  return (
    <Part title="Figure">
      <Choice
        label="What is made"
        value={makes}
        options={[
          { value: 'outlines', text: 'Outlines around it' },
          { value: 'middle-lines', text: 'Lines along its middle', aside: 'of strokes' },
        ]}
        choose={(value) => set({ makes: value })}
      />
      <Choice
        label="The figure"
        value={isLight ? 'light' : 'dark'}
        options={[
          { value: 'dark', text: 'What is dark' },
          { value: 'light', text: 'What is light' },
        ]}
        choose={(value) => set({ isLight: value === 'light' })}
      />
      <Choice
        label="Parted from the ground"
        value={parting}
        options={[
          { value: 'best', text: 'Parted where it shows best' },
          { value: 'level', text: 'Parted at a level' },
          { value: 'local', text: 'Parted by what is around', aside: 'paper in a photo' },
        ]}
        choose={(value) => set({ parting: value })}
      />
      {parting === 'level' && (
        <div className="flex items-end gap-2">
          <input
            type="range"
            aria-label="Level, from black to white"
            className="mb-2 min-w-0 flex-1 accent-petrol"
            min={0}
            max={255}
            value={level}
            onChange={(event) => set({ level: Number(event.target.value) })}
          />
          <div className="w-24">
            <NumberField
              label="Level"
              layout="stack"
              value={level}
              least={0}
              most={255}
              whole
              commit={(typed) => set({ level: typed })}
            />
          </div>
        </div>
      )}
      <div className="grid grid-cols-2 items-start gap-2">
        <NumberField
          label="No specks below"
          layout="stack"
          unit="mm²"
          value={specksMm2}
          least={0}
          most={100_000}
          commit={(typed) => set({ specksMm2: typed })}
        />
        {isAround && !isOuterOnly && (
          <NumberField
            label="No holes below"
            layout="stack"
            unit="mm²"
            value={holesMm2}
            least={0}
            most={100_000}
            commit={(typed) => set({ holesMm2: typed })}
          />
        )}
      </div>
      {isAround && (
        <Tick checked={isOuterOnly} set={(checked) => set({ isOuterOnly: checked })}>
          outer outlines only
        </Tick>
      )}
    </Part>
  );
}

/** How near the outlines keep to the picture. */
export function LineFields({ settings: { smoothingMm, toleranceMm, cornerDegrees }, set }: FieldsProps) {
  return (
    <Part title="Line">
      <div className="grid grid-cols-2 items-start gap-2">
        <NumberField
          label="Smoothing"
          layout="stack"
          unit="mm"
          value={smoothingMm}
          least={0}
          most={10}
          commit={(typed) => set({ smoothingMm: typed })}
        />
        <NumberField
          label="Tolerance"
          layout="stack"
          unit="mm"
          value={toleranceMm}
          least={0.005}
          most={10}
          commit={(typed) => set({ toleranceMm: typed })}
        />
        <NumberField
          label="Corners from"
          layout="stack"
          unit="°"
          value={cornerDegrees}
          least={5}
          most={175}
          commit={(typed) => set({ cornerDegrees: typed })}
        />
      </div>
    </Part>
  );
}
