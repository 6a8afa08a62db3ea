import { NewPersonDto, type PersonAnswer, type Role, roles } from '@lambent/contracts';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { nameOfRole } from '../people/roles.ts';
import { takeSession } from '../people/take-session.ts';
import { joinPath } from '../routes/public-paths.ts';
import { useSession } from '../stores/session.ts';
import { Button } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { useCheckedForm, WordsInput } from '../ui/form.tsx';
import { Labelled } from '../ui/labelled.tsx';
import { t } from '../words/words.ts';
import { ShopCard } from './shop-card.tsx';

/** Who signs in here, and what they may: set up by the first manager. */
export function SignInsCard() {
  const { person, hasManager } = useSession();
  if (hasManager === null) return null;
  return (
    <ShopCard title={t('Signing in')} about={hasManager ? undefined : beforeSignIns()}>
      {!hasManager && <FirstManager />}
      {person?.role === 'manager' && <ManagePeople me={person} />}
      {person && person.role !== 'manager' && (
        <p className="text-quiet">{t('A manager says who signs in here, and what they may do.')}</p>
      )}
    </ShopCard>
  );
}

const beforeSignIns = () =>
  t(
    'Nobody signs in yet: everyone who can reach this address may do everything. Once there is a manager, everybody signs in, and the manager invites them.',
  );

function FirstManager() {
  const queries = useQueryClient();
  const { control, handleSubmit, formState } = useCheckedForm(NewPersonDto, { name: '', password: '' });
  const make = handleSubmit(async (person) => {
    try {
      takeSession(await api.addFirstManager(person));
      await queries.invalidateQueries({ queryKey: ['people'] });
    } catch (error) {
      toast.error(sentenceOf(error));
    }
  });
  return (
    <form aria-label={t('The first manager')} className="flex flex-wrap items-end gap-2" onSubmit={make}>
      <WordsInput control={control} name="name" label={t('Name of the manager')} maxLength={120} />
      <WordsInput control={control} name="password" label={t('Password')} type="password" maxLength={200} />
      <Button type="submit" className="h-9" disabled={formState.isSubmitting}>
        {t('Make the manager')}
      </Button>
      <p className="w-full text-[12px] text-quiet">{t('A password has 10 characters or more.')}</p>
    </form>
  );
}

function ManagePeople({ me }: { me: PersonAnswer }) {
  const queries = useQueryClient();
  const people = useQuery({ queryKey: ['people'], queryFn: api.people });
  const change = async (id: string, what: { role?: Role; hasLeft?: boolean }) => {
    try {
      await api.changePerson(id, what);
    } catch (error) {
      toast.error(sentenceOf(error));
    }
    await queries.invalidateQueries({ queryKey: ['people'] });
  };
  return (
    <>
      {people.isError && <p className="text-stop">{sentenceOf(people.error)}</p>}
      <ul className="mb-3 flex flex-col gap-1.5" aria-label={t('Who signs in here')}>
        {people.data?.map(({ id, name, role, leftAt }) => (
          <li key={id} className="flex items-center gap-2">
            <span className={`min-w-0 flex-1 truncate ${leftAt ? 'text-quiet line-through' : ''}`}>{name}</span>
            {leftAt === null && (
              <div className="w-36">
                <Choice
                  label={t('What {{name}} may do', { name })}
                  look="slim"
                  value={role}
                  options={roleOptions()}
                  choose={(next) => void change(id, { role: next })}
                />
              </div>
            )}
            {id !== me.id && (
              <Button
                look="quiet"
                aria-label={leftAt === null ? t('{{name}} has left', { name }) : t('{{name}} is back', { name })}
                onClick={() => void change(id, { hasLeft: leftAt === null })}
              >
                {leftAt === null ? t('has left') : t('is back')}
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Invite />
    </>
  );
}

const roleOptions = () => roles.map((role) => ({ value: role, text: nameOfRole(role) }));

/** Makes a link by which somebody joins. */
function Invite() {
  const [role, setRole] = useState<Role>('operator');
  const [link, setLink] = useState<string | null>(null);
  const invite = async () => {
    try {
      const { token } = await api.invite({ role });
      setLink(`${window.location.origin}${joinPath}${token}`);
    } catch (error) {
      toast.error(sentenceOf(error));
    }
  };
  return (
    <div className="flex flex-col gap-2 border-t border-line pt-3">
      <div className="flex items-end gap-2">
        <div className="w-36">
          <Labelled label={t('Invite as')}>
            <Choice label={t('Invite as')} look="slim" value={role} options={roleOptions()} choose={setRole} />
          </Labelled>
        </div>
        <Button onClick={() => void invite()}>{t('Make an invitation')}</Button>
      </div>
      {link && (
        <label className="flex flex-col gap-1">
          <span className="text-quiet">{t('Send this link. Somebody can join by it once, within a week.')}</span>
          <input
            readOnly
            value={link}
            onFocus={(event) => event.target.select()}
            className="figures h-9 rounded-lg border border-line bg-raised px-3 focus:border-petrol focus:outline-none"
          />
        </label>
      )}
    </div>
  );
}
