import { isBurnt, type Operation, operationOf, operations } from '@lambent/core/operations';
import { Choice } from '../../ui/choice.tsx';
import { LengthField } from '../../ui/length-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { OperationMark } from '../../ui/operation-mark.tsx';
import { Tick } from '../../ui/tick.tsx';
import { said, t } from '../../words/words.ts';
import { useBench } from '../context.ts';
import { unitOf } from '../state/document.ts';
import { Card, useOptions } from './card-frame.tsx';
import { toolLooks } from './tool-looks.ts';

/** How a shape is drawn: what for, and from where. */
export function DrawCard({ name }: { name: keyof typeof toolLooks }) {
  const [options, change] = useOptions();
  const unit = useBench(unitOf);
  const centred = name === 'rectangle' || name === 'ellipse' || name === 'slot';
  return (
    <Card label={t('{{text}}: how it is drawn', { text: toolLooks[name].text })}>
      <Choice<Operation>
        label={t('Drawn to be')}
        look="chip"
        value={options.operation}
        options={operations.map((value) => ({
          value,
          text: said(operationOf(value).name),
          aside: isBurnt(value) ? undefined : t('never burnt'),
          mark: <OperationMark operation={value} />,
        }))}
        choose={(operation) => change({ operation })}
      />
      {centred && (
        <label className="flex items-center gap-1.5 whitespace-nowrap">
          <input
            type="checkbox"
            checked={options.centred}
            onChange={(event) => change({ centred: event.target.checked })}
          />
          {t('from the centre')}
        </label>
      )}
      {name === 'rectangle' && (
        <div className="w-[180px]">
          <LengthField
            label={t('Corner radius')}
            layout="row"
            unit={unit}
            value={options.radius}
            takes="not-below-0"
            commit={(radius) => change({ radius })}
          />
        </div>
      )}
      {name === 'slot' && (
        <div className="w-[124px]">
          <LengthField
            label={t('Width')}
            layout="row"
            unit={unit}
            value={options.slotWidth}
            takes="more-than-0"
            commit={(slotWidth) => change({ slotWidth })}
          />
        </div>
      )}
      {name === 'polygon' && (
        <>
          <div className="w-[104px]">
            <NumberField
              label={options.star ? t('Tips') : t('Sides')}
              value={options.sides}
              least={3}
              most={100}
              whole
              commit={(sides) => change({ sides })}
            />
          </div>
          <Tick checked={options.star} set={(checked) => change({ star: checked })}>
            {t('star')}
          </Tick>
          {options.star && (
            <div className="w-[118px]">
              <NumberField
                label={t('Depth')}
                unit="%"
                value={options.starDepth}
                least={1}
                most={99}
                commit={(starDepth) => change({ starDepth })}
              />
            </div>
          )}
        </>
      )}
      {name === 'freehand' && (
        <div className="w-[140px]">
          <LengthField
            label={t('Smooth')}
            layout="row"
            unit={unit}
            value={options.smoothing}
            takes="more-than-0"
            commit={(smoothing) => change({ smoothing })}
          />
        </div>
      )}
      {(name === 'line' || name === 'slot' || name === 'polygon') && (
        <div className="w-[128px]">
          <NumberField
            label={t('⇧ steps')}
            unit="°"
            value={options.angleStep}
            least={0.1}
            most={180}
            commit={(angleStep) => change({ angleStep })}
          />
        </div>
      )}
    </Card>
  );
}
