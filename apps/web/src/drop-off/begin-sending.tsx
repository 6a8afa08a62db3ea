import type { DropOffAnswer } from '@lambent/contracts';
import { useQuery } from '@tanstack/react-query';
import { FileUp } from 'lucide-react';
import { useState } from 'react';
import { nameOfShow } from '../desk/job-states.ts';
import { dayOf } from '../stores/dates.ts';
import { useSession } from '../stores/session.ts';
import { asLength, asSize } from '../ui/figures.ts';
import { FileButton } from '../ui/file-button.tsx';
import { Notice } from '../ui/notice.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { acceptedFiles, expectSmall } from './left-file.ts';
import { senderApi } from './sender-api.ts';

/** Asks for a drawing. @param props.begun takes the token of the sending that it began */
export function BeginSending({ about, begun }: { about: DropOffAnswer; begun: (token: string) => void }) {
  const [isOver, setOver] = useState(false);
  const [reading, setReading] = useState<string | null>(null);
  const [send, trouble] = useSent(async (file: File) => {
    expectSmall(file, about.largestMb);
    setReading(file.name);
    try {
      begun((await senderApi.beginSending(file)).token);
    } finally {
      setReading(null);
    }
  });
  if (!about.bed) return <Notice level="notes">{t('This workshop takes no drawings yet.')}</Notice>;
  return (
    <>
      <h1 className="text-[22px] font-bold">{t('Leave a drawing to be cut or engraved')}</h1>
      <p className="mb-4 text-quiet">{t('You see what we see before you send it.')}</p>
      <section
        aria-label={t('Your drawing')}
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault();
          setOver(false);
          const [file] = event.dataTransfer.files;
          if (file) void send(file);
        }}
        className={`flex flex-col items-center gap-3 rounded-xl border-2 border-dashed p-10 text-center ${isOver ? 'border-petrol bg-petrol-soft' : 'border-line bg-paper'}`}
      >
        <FileButton
          look="main"
          className="h-11 px-5"
          accept={acceptedFiles}
          testId="sending-file"
          take={(file) => void send(file)}
        >
          <FileUp size={16} aria-hidden />
          {t('Choose a file')}
        </FileButton>
        <p className="text-quiet">
          {reading === null
            ? t('SVG, DXF, PDF, PNG, JPEG or STL, at most {{most}} MB. On a computer you can drop it here.', {
                most: about.largestMb,
              })
            : t('Reading {{name}}…', { name: reading })}
        </p>
        {trouble}
      </section>
      <section aria-labelledby="stock-heading" className="mt-5">
        <h2 id="stock-heading" className="mb-2 font-bold">
          {t('What we burn')}
        </h2>
        <p className="mb-2 text-quiet">
          {t('Pieces up to {{size}}, of these or of what you bring:', {
            size: asSize(about.bed.width, about.bed.height, 'mm'),
          })}
        </p>
        <ul className="flex flex-wrap gap-2">
          {about.materials.map(({ id, name, thicknessMm, tone }) => (
            <li key={id} className="flex items-center gap-2 rounded-lg border border-line bg-paper px-3 py-1.5">
              <span className="size-5 rounded border border-line" style={{ background: tone }} aria-hidden />
              {name} <span className="figures text-quiet">{asLength(thicknessMm, 'mm')}</span>
            </li>
          ))}
        </ul>
      </section>
      <OwnSendings />
    </>
  );
}

/** What who is signed in has sent in before. */
function OwnSendings() {
  const { person } = useSession();
  const own = useQuery({ queryKey: ['own sendings'], queryFn: senderApi.ownSendings, enabled: person !== null });
  if (!own.data || own.data.length === 0) return null;
  return (
    <section aria-labelledby="own-heading" className="mt-5">
      <h2 id="own-heading" className="mb-2 font-bold">
        {t('What you have sent in')}
      </h2>
      <ul className="rounded-xl border border-line bg-paper">
        {own.data.map(({ id, title, at, state }) => (
          <li key={id} className="flex gap-4 border-t border-line px-4 py-2 first:border-0">
            <span className="min-w-0 flex-1 truncate font-semibold">{title}</span>
            <span className="text-quiet">{dayOf(at)}</span>
            <span className="w-36 text-right">{state ? nameOfShow(state) : t('Deleted')}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
