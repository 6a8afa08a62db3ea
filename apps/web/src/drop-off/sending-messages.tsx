import type { MessageAnswer } from '@lambent/contracts';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Conversation } from '../messages/conversation.tsx';
import { t } from '../words/words.ts';
import { followMs } from './follow-ms.ts';
import { senderApi } from './sender-api.ts';

/** What the workshop and the sender wrote to each other, on the sender's page. */
export function SendingMessages({ token }: { token: string }) {
  const queries = useQueryClient();
  const key = ['sending', token, 'messages'];
  const messages = useQuery({
    queryKey: key,
    queryFn: () => senderApi.sendingMessages(token),
    refetchInterval: followMs,
  });
  const write = async (text: string) => {
    queries.setQueryData<MessageAnswer[]>(key, await senderApi.writeToWorkshop(token, text));
  };
  return (
    <section aria-label={t('Messages')} className="mt-4 border-t border-line pt-3">
      <h2 className="mb-2 text-[15px] font-bold">{t('Messages')}</h2>
      <Conversation
        id={token}
        messages={messages.data ?? []}
        error={messages.error}
        reader="sender"
        label={t('Ask or tell the workshop')}
        write={write}
      />
    </section>
  );
}
