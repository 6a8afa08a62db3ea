import { FitDto, KerfDto } from '@lambent/contracts';
import { fitNames } from '@lambent/core/document';
import type { TestPiece } from '@lambent/core/fit';
import type { Material } from '@lambent/core/recipes';
import { Controller, type UseFormReturn } from 'react-hook-form';
import { api } from '../../../api.ts';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { formatLength } from '../../../ui/figures.ts';
import { ChoiceInput, useCheckedForm } from '../../../ui/form.tsx';
import { SignedBy } from '../../../ui/signed-by.tsx';
import { lowered, t } from '../../../words/words.ts';
import { useBench } from '../../context.ts';
import { machineOf, unitOf } from '../../state/document.ts';
import { useKeeping, useLastWitness } from '../keeping.ts';

interface Props {
  piece: TestPiece;
  material: Material;
}

/** Takes what was read off a burnt piece into the recipe or the material. */
export default function ReadPieceForm({ measures, ...rest }: Props & { measures: 'kerf' | 'fit' }) {
  return measures === 'kerf' ? <ReadKerf {...rest} /> : <ReadFit {...rest} />;
}

function ReadKerf({ piece, material }: Props) {
  const unit = useBench(unitOf);
  const machine = useBench(machineOf);
  const keep = useKeeping();
  const form = useCheckedForm(KerfDto, {
    machineId: machine.id,
    mm: Number.NaN,
    from: 'measured',
    by: useLastWitness(),
  });
  const send = (figure: KerfDto) =>
    keep(
      figure.by,
      () => api.keepKerf(material.id, figure),
      t('The kerf of {{name}} on {{name2}} is {{mm}} from now on.', {
        name: lowered(material.name),
        name2: machine.name,
        mm: formatLength(figure.mm, unit),
      }),
    );
  return (
    <form aria-label={t('Read the piece')} className={look} onSubmit={form.handleSubmit(send)}>
      <Heading />
      <StepInput
        form={form}
        piece={piece}
        label={t('The highest the tongue goes into')}
        empty={t('Highest it goes into')}
      />
      <SignedBy control={form.control} name="by" label={t('Read by')} />
      <Button type="submit" className="self-start" disabled={!piece.steps.includes(form.watch('mm'))}>
        {t('Keep it as the kerf')}
      </Button>
    </form>
  );
}

function ReadFit({ piece, material }: Props) {
  const unit = useBench(unitOf);
  const keep = useKeeping();
  const form = useCheckedForm(FitDto, { fit: 'snug', mm: Number.NaN, from: 'measured', by: useLastWitness() });
  const send = (figure: FitDto) =>
    keep(
      figure.by,
      () => api.keepFit(material.id, figure),
      t('{{name}}: {{fit}} is {{mm}} from now on.', {
        name: material.name,
        fit: figure.fit,
        mm: formatLength(figure.mm, unit),
      }),
    );
  return (
    <form aria-label={t('Read the piece')} className={look} onSubmit={form.handleSubmit(send)}>
      <Heading />
      <StepInput form={form} piece={piece} label={t('The opening')} empty={t('Which opening')} sign />
      <ChoiceInput
        control={form.control}
        name="fit"
        label={t('The fit is')}
        options={fitNames.map((name) => ({ value: name, text: name }))}
      />
      <SignedBy control={form.control} name="by" label={t('Read by')} />
      <Button type="submit" className="self-start" disabled={!piece.steps.includes(form.watch('mm'))}>
        {t('Keep it as the fit')}
      </Button>
    </form>
  );
}

const look = 'flex flex-col gap-1.5 border-t border-line pt-2';

function Heading() {
  return <h3 className="text-quiet">{t('Read off the burnt piece')}</h3>;
}

/** Which of the piece's steps it is; one that the piece no longer has is none. */
function StepInput<Figure extends KerfDto | FitDto>(props: {
  form: UseFormReturn<Figure>;
  piece: TestPiece;
  label: string;
  empty: string;
  /** Marks what is more than 0 with a plus. */
  sign?: boolean;
}) {
  const { form, piece, label, empty, sign } = props;
  const unit = useBench(unitOf);
  return (
    <Controller
      control={form.control}
      name={'mm' as never}
      render={({ field }) => (
        <Choice
          label={label}
          value={piece.steps.includes(field.value) ? String(field.value) : null}
          empty={empty}
          options={piece.steps.map((mm) => ({
            value: String(mm),
            text: `${sign && mm > 0 ? '+' : ''}${formatLength(mm, unit, { fixed: true })}`,
          }))}
          choose={(value) => field.onChange(Number(value))}
        />
      )}
    />
  );
}
