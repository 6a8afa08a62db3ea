import { type TraceSettings, usualByColour } from '@lambent/core/document';
import { Choice } from '../../../../ui/choice.tsx';
import { LengthField } from '../../../../ui/length-field.tsx';
import { NumberField } from '../../../../ui/number-field.tsx';
import { Tick } from '../../../../ui/tick.tsx';
import { useBench } from '../../../context.ts';
import { unitOf } from '../../../state/document.ts';
import { Part } from '../../drawer.tsx';

export interface FieldsProps {
  settings: TraceSettings;
  set: (part: Partial<TraceSettings>) => void;
}

/** What is figure, what is ground, and what is too small to be either. */
export function FigureFields({ settings, set }: FieldsProps) {
  const { makes, parting, level, isLight, isOuterOnly } = settings;
  const isAround = makes === 'outlines';
  const made = (
    <Choice
      label="Makes"
      value={makes}
      options={[
        { value: 'outlines', text: 'Outlines around it' },
        { value: 'middle-lines', text: 'Lines along its middle', aside: 'of strokes' },
        { value: 'colours', text: 'Areas by their colour' },
      ]}
      choose={(value) =>
        set({ makes: value, ...(value === 'colours' ? { byColour: settings.byColour ?? usualByColour } : {}) })
      }
    />
  );
  if (makes === 'colours') {
    return (
      <Part title="Figure">
        {/* One of several colours stays one of them. */}
        {settings.byColour?.own === undefined && made}
        <ColourFields settings={settings} set={set} />
      </Part>
    );
  }
  return (
    <Part title="Figure">
      {made}
      <Choice
        label="Figure"
        value={isLight ? 'light' : 'dark'}
        options={[
          { value: 'dark', text: 'What is dark' },
          { value: 'light', text: 'What is light' },
        ]}
        choose={(value) => set({ isLight: value === 'light' })}
      />
      <Choice
        label="Parted"
        value={parting}
        options={[
          { value: 'best', text: 'Where it shows best' },
          { value: 'level', text: 'At a level' },
          { value: 'local', text: 'By what is around', aside: 'paper in a photo' },
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
        <Specks settings={settings} set={set} />
        {isAround && !isOuterOnly && (
          <Figure
            label="No holes below"
            unit="mm²"
            name="holesMm2"
            least={0}
            most={100_000}
            settings={settings}
            set={set}
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
            label="How they lie"
            value={lie}
            options={[
              { value: 'beside', text: 'Side by side', aside: 'no gaps' },
              { value: 'stacked', text: 'One on the other', aside: 'each under the next' },
            ]}
            choose={(value) => change({ lie: value })}
          />
          <div className="grid grid-cols-2 items-start gap-2">
            <NumberField
              label="Colours at most"
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
            the ground too
          </Tick>
        </>
      ) : (
        <>
          <p className="flex items-center gap-2">
            <span className="size-4 rounded border border-line" style={{ background: own }} /> What is {own} in the
            picture
          </p>
          <Specks settings={settings} set={set} />
        </>
      )}
    </>
  );
}

function Specks({ settings, set }: FieldsProps) {
  return (
    <Figure
      label="No specks below"
      unit="mm²"
      name="specksMm2"
      least={0}
      most={100_000}
      settings={settings}
      set={set}
    />
  );
}

/** How near the outlines keep to the picture. */
export function LineFields({ settings, set }: FieldsProps) {
  const unit = useBench(unitOf);
  return (
    <Part title="Line">
      <div className="grid grid-cols-2 items-start gap-2">
        {settings.makes !== 'colours' && (
          <LengthField
            label="Smoothing"
            unit={unit}
            value={settings.smoothingMm}
            within={[0, 10]}
            isFine
            commit={(smoothingMm) => set({ smoothingMm })}
          />
        )}
        <LengthField
          label="Tolerance"
          unit={unit}
          value={settings.toleranceMm}
          within={[0.005, 10]}
          isFine
          commit={(toleranceMm) => set({ toleranceMm })}
        />
        <Figure label="Corners from" unit="°" name="cornerDegrees" least={5} most={175} settings={settings} set={set} />
      </div>
    </Part>
  );
}

/** One of the numbers of the settings. */
function Figure(
  props: FieldsProps & {
    label: string;
    unit: string;
    name: 'specksMm2' | 'holesMm2' | 'cornerDegrees';
    least: number;
    most: number;
  },
) {
  const { settings, set, name, ...field } = props;
  return <NumberField {...field} layout="stack" value={settings[name]} commit={(typed) => set({ [name]: typed })} />;
}
