import { FitDto } from '@lambent/contracts';
import type { FitName } from '@lambent/core/document';
import { type FigureFrom, fitOf, type Material } from '@lambent/core/recipes';
import { api } from '../../../api.ts';
import { Button } from '../../../ui/button.tsx';
import { ChoiceInput, LengthInput, useCheckedForm } from '../../../ui/form.tsx';
import { SignedBy } from '../../../ui/signed-by.tsx';
import { t } from '../../../words/words.ts';
import { useBench } from '../../context.ts';
import { unitOf } from '../../state/document.ts';
import { useKeeping, useLastWitness } from '../keeping.ts';

const fromWords: readonly { value: FigureFrom; text: string }[] = [
  { value: 'measured', text: t('Measured') },
  { value: 'copied', text: t('Copied from elsewhere') },
  { value: 'guessed', text: t('A guess') },
];

/** Changes what a fit is in a material, with who says so and how they know. */
export default function KeepFitForm({ material, fit, leave }: { material: Material; fit: FitName; leave: () => void }) {
  const unit = useBench(unitOf);
  const keep = useKeeping();
  const { control, handleSubmit } = useCheckedForm(FitDto, {
    fit,
    mm: fitOf(material, fit).mm,
    from: 'measured',
    by: useLastWitness(),
  });
  const send = async (figure: FitDto) => {
    const ask = () => api.keepFit(material.id, figure);
    if (
      await keep(figure.by, ask, t('{{name}}: {{fit}} is now {{mm}} mm.', { name: material.name, fit, mm: figure.mm }))
    )
      leave();
  };
  return (
    <form
      aria-label={t('What {{fit}} is', { fit })}
      className="flex flex-col gap-1.5 rounded-[10px] border border-line bg-raised p-2.5"
      onSubmit={handleSubmit(send)}
    >
      <LengthInput control={control} name="mm" label={t('Clearance')} unit={unit} />
      <ChoiceInput control={control} name="from" label={t('It is')} options={fromWords} />
      <SignedBy control={control} name="by" label={t('Read by')} />
      <div className="flex gap-1.5">
        <Button type="submit">{t('Keep it')}</Button>
        <Button look="quiet" onClick={leave}>
          {t('Never mind')}
        </Button>
      </div>
    </form>
  );
}
