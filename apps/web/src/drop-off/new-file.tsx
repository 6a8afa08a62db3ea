import type { DropOffAnswer } from '@lambent/contracts';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Send } from 'lucide-react';
import { Link, useNavigate } from 'react-router';
import { sentenceOf } from '../api.ts';
import { dropOffPath } from '../routes/public-paths.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { Notice } from '../ui/notice.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { DraftSending } from './draft-sending.tsx';
import { senderApi } from './sender-api.ts';

interface Props {
  /** Of what was sent in. */
  readonly token: string;
  readonly title: string;
  /** Of the draft of the new file. */
  readonly draft: string;
  readonly about: DropOffAnswer;
}

/** A new file for what was sent in, before it is sent: what the shop sees in it, and what it changes. */
export function NewFile({ token, title, draft, about }: Props) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const back = `${dropOffPath}/${token}`;
  const sending = useQuery({ queryKey: ['sending', draft], queryFn: () => senderApi.sending(draft), retry: false });
  const [send, trouble] = useSent(async () => {
    await senderApi.sendNewFile(draft);
    await queries.invalidateQueries({ queryKey: ['sending', token] });
    void navigate(back, { replace: true });
  });
  if (sending.isError)
    return (
      <>
        <Notice level="blocks">{sentenceOf(sending.error)}</Notice>
        <Link to={back} replace className={`mt-3 ${buttonLook('plain')}`}>
          {t('Back to “{{title}}”', { title })}
        </Link>
      </>
    );
  if (!sending.data) return <p className="text-quiet">{t('Looking it up…')}</p>;
  return (
    <DraftSending
      token={draft}
      sending={sending.data}
      about={about}
      heading={t('A new file for “{{title}}”', { title })}
      back={back}
    >
      {trouble}
      <div className="mt-4 flex items-center gap-4">
        <p className="min-w-0 flex-1 text-quiet">
          {t('The workshop sees what changed, and takes it or leaves it out. Until then the one before holds.')}
        </p>
        <Button look="main" className="h-10 px-4" onClick={() => void send(undefined)}>
          <Send size={15} aria-hidden />
          {t('Send it instead')}
        </Button>
      </div>
    </DraftSending>
  );
}
