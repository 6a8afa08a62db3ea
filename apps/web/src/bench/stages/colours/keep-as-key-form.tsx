import { keyFromJob } from '@lambent/core/colours';
import { setKey } from '@lambent/core/edits';
import { IsString, Length } from 'class-validator';
import { toast } from 'sonner';
import { api, sentenceOf } from '../../../api.ts';
import { Button } from '../../../ui/button.tsx';
import { useCheckedForm, WordsInput } from '../../../ui/form.tsx';
import { t } from '../../../words/words.ts';
import { useBenchActions } from '../../context.ts';

class NamedKey {
  @IsString()
  @Length(1, 120, { message: t('A key has a name of 1 to 120 characters.') })
  name!: string;
}

/** Makes a key of what this job was told by hand, for the next drawing of its kind. */
export default function KeepAsKeyForm({ leave }: { leave: () => void }) {
  const actions = useBenchActions();
  const { control, handleSubmit } = useCheckedForm(NamedKey, { name: actions.get().title });
  const keep = async ({ name }: NamedKey) => {
    const { prepared, shop } = actions.get();
    try {
      const made = await api.addKey(keyFromJob(prepared.job, prepared.key, 'new', name));
      actions.takeShop({ ...shop, keys: [...shop.keys, made] });
      actions.edit(t('keep the colours as a key'), (job) => ({ ...setKey(job, made.id), assignments: [] }));
      leave();
      toast.success(t('“{{name}}” is now among the shop’s keys, and this job goes by it.', { name: made.name }));
    } catch (error) {
      toast.error(t('The key was not kept. {{error}}', { error: sentenceOf(error) }));
    }
  };
  return (
    <form className="flex items-start gap-1.5" aria-label={t('Keep as a key')} onSubmit={handleSubmit(keep)}>
      <WordsInput
        control={control}
        name="name"
        label={t('Name of the key')}
        bare
        maxLength={120}
        autoFocus
        onKeyDown={(event) => event.key === 'Escape' && leave()}
      />
      <Button look="main" type="submit" className="h-9">
        {t('Keep')}
      </Button>
    </form>
  );
}
