import { FitDto } from '@lambent/contracts';
import type { FitName } from '@lambent/core/document';
import { type FigureFrom, fitOf, type Material } from '@lambent/core/recipes';
import { api } from '../../../api.ts';
import { Button } from '../../../ui/button.tsx';
import { ChoiceInput, LengthInput, useCheckedForm } from '../../../ui/form.tsx';
import { SignedBy } from '../../../ui/signed-by.tsx';
import { useBench } from '../../context.ts';
import { unitOf } from '../../state/document.ts';
import { useKeeping, useLastWitness } from '../keeping.ts';

const fromWords: readonly { value: FigureFrom; text: string }[] = [
  { value: 'measured', text: 'Measured' },
  { value: 'copied', text: 'Copied from elsewhere' },
  { value: 'guessed', text: 'A guess' },
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
    if (await keep(figure.by, ask, `${material.name}: ${fit} is now ${figure.mm} mm.`)) leave();
  };
  return (
    <form
      aria-label={`What ${fit} is`}
      className="flex flex-col gap-1.5 rounded-[10px] border border-line bg-raised p-2.5"
      onSubmit={handleSubmit(send)}
    >
      <LengthInput control={control} name="mm" label="Clearance" unit={unit} />
      <ChoiceInput control={control} name="from" label="It is" options={fromWords} />
      <SignedBy control={control} name="by" label="Read by" />
      <div className="flex gap-1.5">
        <Button type="submit">Keep it</Button>
        <Button look="quiet" onClick={leave}>
          Never mind
        </Button>
      </div>
    </form>
  );
}
