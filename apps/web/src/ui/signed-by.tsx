import type { Control, FieldPathByValue, FieldValues } from 'react-hook-form';
import { useWho } from '../stores/who.ts';
import { WordsInput } from './form.tsx';

/** Who signs a form: whoever is at this screen. Only where nobody has said so yet, it is asked. */
export function SignedBy<Fields extends FieldValues>(props: {
  control: Control<Fields>;
  name: FieldPathByValue<Fields, string | undefined>;
  label: string;
}) {
  const who = useWho();
  if (who === '') return <WordsInput {...props} maxLength={120} />;
  return (
    <p className="text-[12px] text-quiet">
      {props.label} <span className="font-semibold text-ink">{who}</span>
    </p>
  );
}
