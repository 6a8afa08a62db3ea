import { useQuery } from '@tanstack/react-query';
import { Download } from 'lucide-react';
import { sentenceOf } from '../api.ts';
import { DrawingRules } from '../drop-off/drawing-rules.tsx';
import { LeastTable } from '../drop-off/least-table.tsx';
import { OpenHeader } from '../drop-off/open-header.tsx';
import { senderApi } from '../drop-off/sender-api.ts';
import { buttonLook } from '../ui/button.tsx';
import { asSize, formatLength } from '../ui/figures.ts';
import { Notice } from '../ui/notice.tsx';
import { PageTitle } from '../ui/page-title.tsx';
import { t } from '../words/words.ts';
import { dropOffPath } from './public-paths.ts';

/** How the shop wants drawings to be: by its key and its book, for whoever draws for it. */
export function HowToDrawRoute() {
  const asked = useQuery({ queryKey: ['drop-off'], queryFn: senderApi.dropOff });
  const about = asked.data;
  return (
    <div className="flex h-full flex-col">
      <PageTitle>{t('How to draw for us')}</PageTitle>
      <OpenHeader shopName={about?.shopName ?? ''} to={dropOffPath}>
        {t('Leave a drawing')}
      </OpenHeader>
      <main className="min-h-0 flex-1 overflow-auto">
        <div className="mx-auto flex max-w-[820px] flex-col gap-6 px-4 py-5 sm:px-6">
          <h1 className="text-[22px] font-bold">{t('How to draw for us')}</h1>
          {asked.isError && <Notice level="blocks">{sentenceOf(asked.error)}</Notice>}
          {about && !about.bed && <Notice level="notes">{t('This workshop takes no drawings yet.')}</Notice>}
          {about?.bed && (
            <>
              <section aria-labelledby="colours-heading">
                <h2 id="colours-heading" className="mb-1 text-[15px] font-bold">
                  {t('What your lines and fills mean here')}
                </h2>
                <p className="mb-2 text-quiet">
                  {t('The first that fits counts. What is drawn otherwise we ask you about when you leave it.')}
                </p>
                <DrawingRules rules={about.rules} />
              </section>
              <section aria-labelledby="size-heading">
                <h2 id="size-heading" className="mb-1 text-[15px] font-bold">
                  {t('Size and distance')}
                </h2>
                <ul className="list-disc pl-5">
                  <li>
                    {t('Draw in true size. The largest we take is {{size}}.', {
                      size: asSize(about.bed.width, about.bed.height, 'mm'),
                    })}
                  </li>
                  <li>
                    {t('Keep {{margin}} from the edge of the sheet free.', {
                      margin: formatLength(about.marginMm, 'mm'),
                    })}
                  </li>
                  <li>{t('Keep one piece as far from the other as a wall is wide at least.')}</li>
                  <li>{t('Close the outlines that are cut, and draw each line once.')}</li>
                  <li>{t('Turn text into outlines where its font is a special one.')}</li>
                </ul>
              </section>
              <section aria-labelledby="least-heading">
                <h2 id="least-heading" className="mb-2 text-[15px] font-bold">
                  {t('What each material holds')}
                </h2>
                <LeastTable materials={about.materials} />
              </section>
              <section aria-labelledby="template-heading">
                <h2 id="template-heading" className="mb-1 text-[15px] font-bold">
                  {t('A page to draw on')}
                </h2>
                <p className="mb-2 text-quiet">
                  {t('As large as our bed, with its margin and our colours. What is on it already is not burnt.')}
                </p>
                <div className="flex flex-wrap gap-2">
                  {(['svg', 'pdf'] as const).map((format) => (
                    <a key={format} href={`/api/drop-off/template.${format}`} download className={buttonLook('plain')}>
                      <Download size={14} aria-hidden />
                      {t('Template as {{format}}', { format: format.toUpperCase() })}
                    </a>
                  ))}
                </div>
                <p className="mt-2 text-quiet">
                  {t('Files are SVG, DXF, PDF, PNG, JPEG or STL, at most {{most}} MB.', {
                    most: about.largestMb,
                  })}
                </p>
              </section>
            </>
          )}
        </div>
      </main>
    </div>
  );
}
