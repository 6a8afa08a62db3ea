import { NewPasswordDto, type PersonAnswer } from '@lambent/contracts';
import { useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { useCheckedForm, WordsInput } from '../ui/form.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { nameOfRole } from './roles.ts';

/** Who is signed in: their password, and the way out. */
export default function Account({ person }: { person: PersonAnswer }) {
  const [isChanging, setChanging] = useState(false);
  const leave = async (how: () => Promise<unknown>) => {
    try {
      await how();
      window.location.assign('/');
    } catch (error) {
      toast.error(sentenceOf(error));
    }
  };
  return (
    <>
      <p className="font-semibold">{person.name}</p>
      <p className="mb-3 text-quiet">{nameOfRole(person.role)}</p>
      {isChanging ? (
        <ChangePassword leave={() => setChanging(false)} />
      ) : (
        <div className="flex flex-col items-start gap-1.5">
          <Button onClick={() => setChanging(true)}>{t('Change the password')}</Button>
          <Button onClick={() => void leave(api.signOut)}>{t('Sign out')}</Button>
          <Button look="quiet" onClick={() => void leave(api.signOutEverywhere)}>
            {t('Sign out everywhere')}
          </Button>
        </div>
      )}
    </>
  );
}

function ChangePassword({ leave }: { leave: () => void }) {
  const { control, handleSubmit, formState } = useCheckedForm(NewPasswordDto, { current: '', next: '' });
  const [send, trouble] = useSent(async (words: NewPasswordDto) => {
    await api.changePassword(words);
    toast.success(t('Your password is changed. Elsewhere you are signed out.'));
    leave();
  });
  return (
    <form aria-label={t('Change the password')} className="flex flex-col gap-2" onSubmit={handleSubmit(send)}>
      <WordsInput control={control} name="current" label={t('Password now')} type="password" maxLength={200} />
      <WordsInput
        control={control}
        name="next"
        label={t('New one, 10 characters or more')}
        type="password"
        maxLength={200}
      />
      {trouble}
      <div className="flex gap-1.5">
        <Button type="submit" disabled={formState.isSubmitting}>
          {t('Change it')}
        </Button>
        <Button look="quiet" onClick={leave}>
          {t('Never mind')}
        </Button>
      </div>
    </form>
  );
}
