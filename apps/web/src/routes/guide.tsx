import { atWork } from '@lambent/core/machine';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import Markdown from 'markdown-to-jsx/react';
import { useState } from 'react';
import { Link, NavLink, useNavigate, useParams, useSearchParams } from 'react-router';
import { api, sentenceOf } from '../api.ts';
import { type GuidePage, guidePages, soughtPages } from '../guide/guide-pages.ts';
import { makeGuideJob } from '../guide/open-guide-job.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { Notice } from '../ui/notice.tsx';
import { PageBar } from '../ui/page-bar.tsx';
import { PageTitle } from '../ui/page-title.tsx';
import { SearchField } from '../ui/search-field.tsx';
import { t } from '../words/words.ts';
import { LostRoute } from './lost.tsx';

const files = import.meta.glob<string>('../../../../docs/guide/*.md', {
  query: '?raw',
  import: 'default',
  eager: true,
});
const pages = guidePages(
  Object.fromEntries(Object.entries(files).map(([path, text]) => [path.replace(/^.*\/|\.md$/g, ''), text])),
);

/** How Lambent is used: a page a stage, and small jobs to try. */
export function GuideRoute() {
  const { page: slug } = useParams();
  const [asked] = useSearchParams();
  const [sought, setSought] = useState(asked.get('sought') ?? '');
  const found = soughtPages(pages, sought);
  const page = slug === undefined ? (found[0] ?? pages[0]) : pages.find((known) => known.slug === slug);
  if (!page) return <LostRoute />;
  return (
    <div className="flex h-full flex-col">
      <PageTitle>{t('{{title}} · Guide', { title: page.title })}</PageTitle>
      <PageBar />
      <div className="mx-auto flex min-h-0 w-full max-w-[1000px] flex-1 gap-8 px-6 pt-6 max-md:flex-col">
        <nav
          aria-label={t('Pages of the guide')}
          className="w-60 shrink-0 overflow-y-auto pb-6 max-md:max-h-52 max-md:w-full"
        >
          <SearchField label={t('Search the guide')} value={sought} change={setSought} className="mb-3 w-full" />
          <PageList title={t('Stages')} pages={found.filter(({ stage }) => stage !== null)} />
          <PageList title={t('Small jobs')} pages={found.filter(({ stage }) => stage === null)} />
          {found.length === 0 && (
            <p className="text-quiet">{t('No page has “{{sought}}” in it.', { sought: sought.trim() })}</p>
          )}
        </nav>
        <main className="min-w-0 flex-1 overflow-y-auto pb-10">
          <article className="guide max-w-[620px] text-[15px] leading-relaxed">
            <h1 className="mb-3 text-2xl font-bold">{page.title}</h1>
            {page.job && <TryIt key={page.slug} page={page} />}
            <Markdown>{page.text}</Markdown>
          </article>
        </main>
      </div>
    </div>
  );
}

function PageList({ title, pages: listed }: { title: string; pages: readonly GuidePage[] }) {
  if (listed.length === 0) return null;
  return (
    <>
      <h2 className="mb-1 text-[12px] text-quiet">{title}</h2>
      <ul className="mb-4">
        {listed.map(({ slug, title: name }) => (
          <li key={slug}>
            <NavLink
              to={`/guide/${slug}`}
              className="block rounded-lg px-2.5 py-1.5 hover:bg-paper aria-[current=page]:bg-petrol-soft aria-[current=page]:font-semibold aria-[current=page]:text-petrol"
            >
              {name}
            </NavLink>
          </li>
        ))}
      </ul>
    </>
  );
}

/** Opens a job to try what the page says. */
function TryIt({ page }: { page: GuidePage }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const machines = useQuery({ queryKey: ['machines'], queryFn: api.machines });
  const machine = atWork(machines.data ?? [])[0];
  const make = useMutation({
    mutationFn: () => makeGuideJob(page, machine.id),
    onSuccess: (place) => {
      void queries.invalidateQueries({ queryKey: ['jobs'] });
      return navigate(place);
    },
  });
  if (machines.data && !machine) {
    return (
      <p className="mb-4">
        <Link to="/machines/new" className={buttonLook('main')}>
          {t('Add a machine to try it')}
        </Link>
      </p>
    );
  }
  return (
    <div className="mb-4">
      <Button look="main" disabled={!machine || make.isPending} onClick={() => make.mutate()}>
        {make.isPending ? t('Opening the job…') : t('Open the job')}
      </Button>
      {make.isError && <Notice level="blocks">{sentenceOf(make.error)}</Notice>}
    </div>
  );
}
