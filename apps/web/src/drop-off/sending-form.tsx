import { SendInDto } from '@lambent/contracts';
import { useQueryClient } from '@tanstack/react-query';
import { Send } from 'lucide-react';
import { Controller } from 'react-hook-form';
import { useSession } from '../stores/session.ts';
import { Button } from '../ui/button.tsx';
import { useCheckedForm, WordsInput } from '../ui/form.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { senderApi } from './sender-api.ts';

/** Who sends, what it is called, by when it is wanted, and what else there is to know; and sends it in. */
export function SendingForm({ token, file, writesMails }: { token: string; file: string; writesMails: boolean }) {
  const queries = useQueryClient();
  const { person } = useSession();
  const { control, handleSubmit, formState } = useCheckedForm(SendInDto, {
    name: person?.name ?? '',
    title: file.replace(/\.[^.]+$/, '').slice(0, 120),
    notes: '',
    wantedBy: '',
    mail: '',
  });
  const [send, trouble] = useSent(async (words: SendInDto) => {
    queries.setQueryData(['sending', token], await senderApi.sendIn(token, words));
  });
  return (
    <form aria-label={t('Send it in')} className="mt-4 flex flex-col gap-3" onSubmit={handleSubmit(send)}>
      <div className="grid gap-3 sm:grid-cols-2">
        <WordsInput control={control} name="name" label={t('Your name')} maxLength={120} />
        <WordsInput control={control} name="title" label={t('What to call it')} maxLength={120} />
        <WordsInput control={control} name="wantedBy" label={t('Wanted by')} type="date" />
        {writesMails && (
          <WordsInput
            control={control}
            name="mail"
            label={t('Your mail address, if you want mails')}
            inputMode="email"
            maxLength={254}
          />
        )}
      </div>
      <Controller
        control={control}
        name="notes"
        render={({ field }) => (
          <label className="flex flex-col gap-1">
            <span className="text-quiet">{t('Anything we should know')}</span>
            <textarea
              {...field}
              value={field.value ?? ''}
              rows={3}
              maxLength={2000}
              className="rounded-lg border border-line bg-raised px-3 py-2 focus:border-petrol focus:outline-none"
            />
          </label>
        )}
      />
      {trouble}
      <div className="flex items-center gap-4">
        <p className="min-w-0 flex-1 text-quiet">
          {t('Nothing is burnt before the workshop has looked at it. You get a link to follow it.')}
        </p>
        <Button type="submit" look="main" className="h-10 px-4" disabled={formState.isSubmitting}>
          <Send size={15} aria-hidden />
          {t('Send it in')}
        </Button>
      </div>
    </form>
  );
}
