import { type TraceSettings, usualByColour } from '@lambent/core/document';
import { AreaField } from '../../../../ui/area-field.tsx';
import { Choice } from '../../../../ui/choice.tsx';
import { LengthField } from '../../../../ui/length-field.tsx';
import { NumberField } from '../../../../ui/number-field.tsx';
import { Tick } from '../../../../ui/tick.tsx';
import { t } from '../../../../words/words.ts';
import { useBench } from '../../../context.ts';
import { unitOf } from '../../../state/document.ts';
import { Part } from '../../drawer.tsx';

export interface FieldsProps {
  settings: TraceSettings;
  set: (part: Partial<TraceSettings>) => void;
}

/** What is figure, what is ground, and what is too small to be either. */
export function FigureFields({ settings, set }: FieldsProps) {
  const unit = useBench(unitOf);
  const { makes, parting, level, isLight, isOuterOnly } = settings;
  const isAround = makes === 'outlines';
  const made = (
    <Choice
      label={t('Makes')}
      value={makes}
      options={[
        { value: 'outlines', text: t('Outlines around it') },
        { value: 'middle-lines', text: t('Lines along its middle'), aside: t('of strokes') },
        { value: 'colours', text: t('Areas by their colour') },
      ]}
      choose={(value) =>
        set({ makes: value, ...(value === 'colours' ? { byColour: settings.byColour ?? usualByColour } : {}) })
      }
    />
  );
  if (makes === 'colours') {
    return (
      <Part title={t('Figure')}>
        {/* One of several colours stays one of them. */}
        {settings.byColour?.own === undefined && made}
        <ColourFields settings={settings} set={set} />
      </Part>
    );
  }
  return (
    <Part title={t('Figure')}>
      {made}
      <Choice
        label={t('Figure')}
        value={isLight ? 'light' : 'dark'}
        options={[
          { value: 'dark', text: t('What is dark') },
          { value: 'light', text: t('What is light') },
        ]}
        choose={(value) => set({ isLight: value === 'light' })}
      />
      <Choice
        label={t('Parted')}
        value={parting}
        options={[
          { value: 'best', text: t('Where it shows best') },
          { value: 'level', text: t('At a level') },
          { value: 'local', text: t('By what is around'), aside: t('paper in a photo') },
        ]}
        choose={(value) => set({ parting: value })}
      />
      {parting === 'level' && (
        <div className="flex items-end gap-2">
          <input
            type="range"
            aria-label={t('Level, from black to white')}
            className="mb-2 min-w-0 flex-1 accent-petrol"
            min={0}
            max={255}
            value={level}
            onChange={(event) => set({ level: Number(event.target.value) })}
          />
          <div className="w-24">
            <NumberField
              label={t('Level')}
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
        <Specks settings={settings} set={set} />
        {isAround && !isOuterOnly && (
          <AreaField
            label={t('No holes below')}
            unit={unit}
            valueMm2={settings.holesMm2}
            mostMm2={100_000}
            commit={(holesMm2) => set({ holesMm2 })}
          />
        )}
      </div>
      {isAround && (
        <Tick checked={isOuterOnly} set={(checked) => set({ isOuterOnly: checked })}>
          {t('outer outlines only')}
        </Tick>
      )}
    </Part>
  );
}

/** Which colours there are, and how their areas lie on each other. */
function ColourFields({ settings, set }: FieldsProps) {
  const byColour = settings.byColour ?? usualByColour;
  const { most, lie, withGround, own } = byColour;
  const change = (part: Partial<typeof byColour>) => set({ byColour: { ...byColour, ...part } });
  return (
    <>
      {own === undefined ? (
        <>
          <Choice
            label={t('How they lie')}
            value={lie}
            options={[
              { value: 'beside', text: t('Side by side'), aside: t('no gaps') },
              { value: 'stacked', text: t('One on the other'), aside: t('each under the next') },
            ]}
            choose={(value) => change({ lie: value })}
          />
          <div className="grid grid-cols-2 items-start gap-2">
            <NumberField
              label={t('Colours at most')}
              layout="stack"
              value={most}
              least={2}
              most={8}
              whole
              commit={(typed) => change({ most: typed })}
            />
            <Specks settings={settings} set={set} />
          </div>
          <Tick checked={withGround} set={(checked) => change({ withGround: checked })}>
            {t('the ground too')}
          </Tick>
        </>
      ) : (
        <>
          <p className="flex items-center gap-2">
            <span className="size-4 rounded border border-line" style={{ background: own }} />{' '}
            {t('What is {{own}} in the picture', { own })}
          </p>
          <Specks settings={settings} set={set} />
        </>
      )}
    </>
  );
}

function Specks({ settings, set }: FieldsProps) {
  const unit = useBench(unitOf);
  return (
    <AreaField
      label={t('No specks below')}
      unit={unit}
      valueMm2={settings.specksMm2}
      mostMm2={100_000}
      commit={(specksMm2) => set({ specksMm2 })}
    />
  );
}

/** How near the outlines keep to the picture. */
export function LineFields({ settings, set }: FieldsProps) {
  const unit = useBench(unitOf);
  return (
    <Part title={t('Line')}>
      <div className="grid grid-cols-2 items-start gap-2">
        {settings.makes !== 'colours' && (
          <LengthField
            label={t('Smoothing')}
            unit={unit}
            value={settings.smoothingMm}
            within={[0, 10]}
            isFine
            commit={(smoothingMm) => set({ smoothingMm })}
          />
        )}
        <LengthField
          label={t('Tolerance')}
          unit={unit}
          value={settings.toleranceMm}
          within={[0.005, 10]}
          isFine
          commit={(toleranceMm) => set({ toleranceMm })}
        />
        <NumberField
          label={t('Corners from')}
          layout="stack"
          unit="°"
          value={settings.cornerDegrees}
          least={5}
          most={175}
          commit={(cornerDegrees) => set({ cornerDegrees })}
        />
      </div>
    </Part>
  );
}
