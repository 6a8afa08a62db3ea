import { useQuery } from '@tanstack/react-query';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { Refusal, sentenceOf } from '../api.ts';
import { BeginSending } from '../drop-off/begin-sending.tsx';
import { DraftSending } from '../drop-off/draft-sending.tsx';
import { followMs } from '../drop-off/follow-ms.ts';
import { FollowSending } from '../drop-off/follow-sending.tsx';
import { NewFile } from '../drop-off/new-file.tsx';
import { OpenHeader } from '../drop-off/open-header.tsx';
import { senderApi } from '../drop-off/sender-api.ts';
import { SendingForm } from '../drop-off/sending-form.tsx';
import { Notice } from '../ui/notice.tsx';
import { PageTitle } from '../ui/page-title.tsx';
import { t } from '../words/words.ts';
import { dropOffPath, howToDrawPath } from './public-paths.ts';

/** Where anybody leaves a drawing, sees what the shop sees in it, sends it in, and follows it by its link. */
export function DropOffRoute() {
  const { token } = useParams();
  const navigate = useNavigate();
  const draft = useSearchParams()[0].get('file');
  const about = useQuery({ queryKey: ['drop-off'], queryFn: senderApi.dropOff });
  const sending = useQuery({
    queryKey: ['sending', token],
    queryFn: () => senderApi.sending(token ?? ''),
    enabled: token !== undefined,
    // A draft is changed here alone; one that was sent in changes in the shop.
    refetchInterval: (query) => (query.state.data?.sent ? followMs : false),
    retry: (count, error) => !(error instanceof Refusal && error.status === 404) && count < 2,
  });
  const lost = sending.isError ? sentenceOf(sending.error) : null;
  return (
    <div className="flex h-full flex-col">
      <PageTitle>{t('Drop-off')}</PageTitle>
      <OpenHeader shopName={about.data?.shopName ?? ''} to={howToDrawPath}>
        {t('How to draw for us')}
      </OpenHeader>
      <main className="min-h-0 flex-1 overflow-auto">
        <div className="mx-auto max-w-[1180px] px-4 py-5 sm:px-6">
          {about.isError && <Notice level="blocks">{sentenceOf(about.error)}</Notice>}
          {(token === undefined || lost !== null) && about.data && (
            <>
              {lost && (
                <div className="mb-4">
                  <Notice level="blocks">{lost}</Notice>
                </div>
              )}
              <BeginSending
                about={about.data}
                begun={(next) => void navigate(`${dropOffPath}/${next}`, { replace: token !== undefined })}
              />
            </>
          )}
          {token !== undefined && sending.isPending && <p className="text-quiet">{t('Looking it up…')}</p>}
          {token !== undefined && sending.data && !sending.data.sent && about.data && (
            <DraftSending
              token={token}
              sending={sending.data}
              about={about.data}
              heading={t('Leave a drawing to be cut or engraved')}
              back={dropOffPath}
            >
              <SendingForm token={token} file={sending.data.file} writesMails={about.data.writesMails} />
            </DraftSending>
          )}
          {token !== undefined && sending.data?.sent && about.data && draft !== null && (
            <NewFile token={token} title={sending.data.sent.title} draft={draft} about={about.data} />
          )}
          {token !== undefined && sending.data?.sent && about.data && draft === null && (
            <FollowSending token={token} about={about.data} sending={sending.data} sent={sending.data.sent} />
          )}
        </div>
      </main>
    </div>
  );
}
