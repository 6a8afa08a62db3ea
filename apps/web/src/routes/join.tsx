import { NewPersonDto } from '@lambent/contracts';
import { useParams } from 'react-router';
import { api } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { useCheckedForm, WordsInput } from '../ui/form.tsx';
import { PageTitle } from '../ui/page-title.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';

/** Where the link of an invitation leads: who comes says their name, and chooses a password. */
export function JoinRoute() {
  const { token = '' } = useParams();
  const { control, handleSubmit, formState } = useCheckedForm(NewPersonDto, { name: '', password: '' });
  const [send, trouble] = useSent(async (person: NewPersonDto) => {
    await api.join({ ...person, token });
    window.location.assign('/');
  });
  return (
    <main className="flex h-full items-center justify-center p-4">
      <PageTitle>{t('Join the shop')}</PageTitle>
      <section className="w-80 rounded-xl border border-line bg-paper p-5 shadow-float">
        <img src="/mark.svg" alt="" className="mb-3 size-9" />
        <h1 className="mb-1 text-[17px] font-bold">{t('Join the shop')}</h1>
        <p className="mb-3 text-quiet">
          {t('Your name signs what you do here. You sign in with it and your password.')}
        </p>
        <form aria-label={t('Join the shop')} className="flex flex-col gap-3" onSubmit={handleSubmit(send)}>
          <WordsInput control={control} name="name" label={t('Your name')} maxLength={120} />
          <WordsInput
            control={control}
            name="password"
            label={t('Password, 10 characters or more')}
            type="password"
            maxLength={200}
          />
          {trouble}
          <Button type="submit" look="main" disabled={formState.isSubmitting}>
            {t('Join')}
          </Button>
        </form>
      </section>
    </main>
  );
}
