import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import type { SharingGroup, SharingLayout } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import type { Material } from '@lambent/core/recipes';
import { useQuery } from '@tanstack/react-query';
import { Layers } from 'lucide-react';
import { api, sentenceOf } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { counted } from '../ui/counted.ts';
import { asLength, fixed, formatDuration, formatMoney } from '../ui/figures.ts';
import { t } from '../words/words.ts';
import { leftOutWords } from './left-out-words.ts';
import { jobColours, SharedSheet } from './shared-sheet.tsx';
import { useLayOut } from './use-lay-out.ts';

interface Lists {
  readonly machines: readonly Machine[];
  readonly materials: readonly Material[];
  readonly currency: string;
}

/** Jobs that are ready, by the stock they need, with how they would lie on sheets together. Nothing where there are none. */
export default function BurnTogether(lists: Lists) {
  const groups = useQuery({ queryKey: ['jobs', 'sharing'], queryFn: api.sharing });
  if (groups.isError) return <p className="mb-3 text-stop">{sentenceOf(groups.error)}</p>;
  if (!groups.data || groups.data.length === 0) return null;
  return (
    <section aria-label={t('Burn together')} className="mb-4">
      <h2 className="mb-2 font-bold">
        {t('Burn together')}{' '}
        <span className="font-normal text-quiet">{t('Jobs that are ready, by the stock they need.')}</span>
      </h2>
      <ul className="grid gap-3 md:grid-cols-2">
        {groups.data.map((group) => (
          <GroupCard key={`${group.machineId} ${group.materialId} ${group.jobs[0].jobId}`} group={group} {...lists} />
        ))}
      </ul>
    </section>
  );
}

function GroupCard({ group, machines, materials, currency }: Lists & { group: SharingGroup }) {
  const { jobs, layout, trouble } = group;
  const material = materials.find(({ id }) => id === group.materialId);
  const machine = machines.find(({ id }) => id === group.machineId);
  const name = material ? `${material.name} ${asLength(material.thicknessMm)}` : t('no sheet yet');
  return (
    <li className="flex gap-3 rounded-xl border border-line bg-paper p-3">
      <div className="flex w-28 shrink-0 items-center justify-center">
        {layout ? (
          <SharedSheet sheet={layout.sheets[0]} tone={material?.tone} />
        ) : (
          <Layers className="text-quiet" aria-hidden />
        )}
      </div>
      <div className="min-w-0 flex-1">
        <p className="flex gap-2">
          <span className="min-w-0 flex-1 truncate font-bold">{name}</span>
          {layout && <span className="figures">{formatDuration(layout.seconds)}</span>}
        </p>
        <p className="flex gap-2 text-quiet">
          <span className="min-w-0 flex-1 truncate">
            {[machine?.name, layout ? whatLies(layout, jobs.length) : counted(jobs.length, 'job')]
              .filter(Boolean)
              .join(' · ')}
          </span>
          {layout && layout.price !== null && (
            <span className="figures">{formatMoney(layout.price, { currency })}</span>
          )}
        </p>
        {trouble && <p className="text-stop">{trouble}</p>}
        {!layout && !trouble && <p className="text-quiet">{t('Being laid out…')}</p>}
        {layout && layout.blocks > 0 && (
          <p className="text-stop">{t('Findings that block it: {{blocks}}', { blocks: layout.blocks })}</p>
        )}
        <div className="mt-1.5 flex flex-wrap items-center gap-2">
          {layout && <LayOut group={group} layout={layout} machine={machine} name={name} />}
          <Closer group={group} name={name} tone={material?.tone} />
        </div>
      </div>
    </li>
  );
}

function LayOut(props: { group: SharingGroup; layout: SharingLayout; machine: Machine | undefined; name: string }) {
  const { group, layout, machine, name } = props;
  const { layOut, isPending } = useLayOut();
  const title = t('{{jobs}}, {{material}}', { jobs: counted(group.jobs.length, 'job'), material: name });
  return (
    <>
      <Button
        aria-label={t('Lay them out: {{title}}', { title })}
        disabled={isPending}
        onClick={() => layOut({ print: layout.print, title, machineId: null })}
      >
        {t('Lay them out')}
      </Button>
      {machine && layout.blocks === 0 && (
        <Button
          look="quiet"
          aria-label={t('Give to {{name}}: {{title}}', { name: machine.name, title })}
          disabled={isPending}
          onClick={() => layOut({ print: layout.print, title, machineId: machine.id })}
        >
          {t('Give to {{name}}', { name: machine.name })}
        </Button>
      )}
    </>
  );
}

/** All sheets, large, with whose piece is whose; and what was left out. */
function Closer({ group, name, tone }: { group: SharingGroup; name: string; tone: string | undefined }) {
  const { jobs, leftOut, layout } = group;
  const colours = jobColours(jobs.map(({ jobId }) => jobId));
  return (
    <Popover className="relative">
      <PopoverButton as={Button} look="quiet">
        {leftOut.length > 0 ? t('Look closer, left out: {{count}}', { count: leftOut.length }) : t('Look closer')}
        <span className="sr-only">: {name}</span>
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom start', gap: 6, padding: 8 }}
        focus
        className="z-30 w-[620px] max-w-[calc(100vw-16px)] rounded-xl border border-line bg-paper p-4 shadow-float"
      >
        <div className="grid gap-3">
          {layout?.sheets.map((sheet, i) => (
            <figure key={i}>
              <SharedSheet sheet={sheet} tone={tone} colours={colours} />
              <figcaption className="mt-1 text-quiet">
                {t('Sheet {{sheet}}: {{width}} × {{height}}, {{percent}} % used', {
                  sheet: i + 1,
                  width: asLength(sheet.widthMm),
                  height: asLength(sheet.heightMm),
                  percent: fixed(sheet.use * 100, 0),
                })}
              </figcaption>
            </figure>
          ))}
        </div>
        <ul className="mt-3 grid gap-x-4 gap-y-1 sm:grid-cols-2">
          {jobs.map(({ jobId, title, whose, copies }) => (
            <li key={jobId} className="flex min-w-0 items-center gap-2">
              <span
                className="size-3 shrink-0 rounded-sm border border-ink/30"
                style={{ background: colours.get(jobId) }}
              />
              <span className="truncate">
                {copies > 1 ? t('{{title}}, {{copies}} times', { title, copies }) : title}
                {whose && <span className="text-quiet">, {whose}</span>}
              </span>
            </li>
          ))}
        </ul>
        {leftOut.length > 0 && (
          <ul aria-label={t('Left out')} className="mt-3 border-t border-line pt-2">
            {leftOut.map(({ jobId, title, why }) => (
              <li key={jobId} className="text-warn">
                {t('{{title}} {{why}}.', { title, why: leftOutWords(why) })}
              </li>
            ))}
          </ul>
        )}
      </PopoverPanel>
    </Popover>
  );
}

/** Such as `4 jobs on 1 sheet, 86 % used`. */
function whatLies({ sheets }: SharingLayout, jobs: number): string {
  const area = sheets.reduce((sum, { widthMm, heightMm }) => sum + widthMm * heightMm, 0);
  const used = sheets.reduce((sum, { widthMm, heightMm, use }) => sum + widthMm * heightMm * use, 0);
  return t('{{jobs}} on {{sheets}}, {{percent}} % used', {
    jobs: counted(jobs, 'job'),
    sheets: counted(sheets.length, 'sheet'),
    percent: fixed((used / area) * 100, 0),
  });
}
