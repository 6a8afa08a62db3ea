import { NewPasswordDto, type PersonAnswer } from '@lambent/contracts';
import { Check } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { useSession } from '../stores/session.ts';
import { Button } from '../ui/button.tsx';
import { useCheckedForm, WordsInput } from '../ui/form.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { nameOfRole } from './roles.ts';

/** Who is signed in: their password, and the way out. */
export default function Account({ person }: { person: PersonAnswer }) {
  const [isChanging, setChanging] = useState(false);
  const demo = useSession((session) => session.demo);
  const attempt = async (how: () => Promise<unknown>, then: () => void) => {
    try {
      await how();
      then();
    } catch (error) {
      toast.error(sentenceOf(error));
    }
  };
  const leave = (how: () => Promise<unknown>) => attempt(how, () => window.location.assign('/'));
  const be = (personId: string) =>
    attempt(
      () => api.beInDemo({ personId }),
      () => window.location.reload(),
    );
  return (
    <>
      <p className="font-semibold">{person.name}</p>
      <p className="mb-3 text-quiet">{nameOfRole(person.role)}</p>
      {demo.length > 0 ? (
        <DemoPeople me={person} people={demo} be={(personId) => void be(personId)} />
      ) : isChanging ? (
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

interface DemoPeopleProps {
  me: PersonAnswer;
  people: readonly PersonAnswer[];
  be: (id: string) => void;
}

/** The people of the demo: each is one click away. */
function DemoPeople({ me, people, be }: DemoPeopleProps) {
  return (
    <>
      <p className="mb-2">{t('This is the demo. At this computer you are signed in without a password, as:')}</p>
      <ul className="-mx-1" aria-label={t('People of the demo')}>
        {people.map(({ id, name, role }) => (
          <li key={id}>
            <button
              type="button"
              aria-current={id === me.id}
              onClick={() => be(id)}
              className="flex w-full items-center gap-2 rounded-lg px-2 py-1.5 text-left hover:bg-petrol-soft"
            >
              <span className="min-w-0 flex-1 truncate">{name}</span>
              <span className="text-[12px] text-quiet">{nameOfRole(role)}</span>
              <Check size={14} className={`text-petrol ${id === me.id ? '' : 'invisible'}`} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
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
