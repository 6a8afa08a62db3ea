import { setMember } from '@lambent/core/edits';
import { type FileUnit, fileNameFor, type OutgoingChoices, programNameFor, usualFileName } from '@lambent/core/formats';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { format } from 'date-fns';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../../../api.ts';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { download } from '../../../ui/download.ts';
import { t } from '../../../words/words.ts';
import type { ArtworkFormat } from '../../../workers/outgoing-files.ts';
import { work } from '../../../workers/work.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { useKeptSettings } from '../../kept-settings.ts';
import type { BenchState } from '../../state/bench-state.ts';
import { jobOf, unitOf } from '../../state/document.ts';
import { isBlocked } from '../../state/plan.ts';
import { useRuns } from '../../use-runs.ts';
import { Part } from '../drawer.tsx';
import { choiceOf } from './run-choice.ts';

type Format = ArtworkFormat | 'gcode';
type Scope = 'job' | 'selection' | 'run';

const formats: readonly { value: Format; text: string; aside: string }[] = [
  { value: 'gcode', text: t('G-code'), aside: t('the plan') },
  { value: 'svg', text: 'SVG', aside: t('drawing') },
  { value: 'dxf', text: 'DXF', aside: t('drawing') },
  { value: 'pdf', text: 'PDF', aside: t('true size') },
  { value: 'png', text: 'PNG', aside: t('picture') },
];

const usual = {
  kind: 'gcode' as Format,
  scope: 'job' as Scope,
  paints: 'as-came' as OutgoingChoices['paints'],
  guides: 'with' as 'with' | 'without',
  /** Of drawings; until one is chosen, the unit of the job. */
  unit: '' as FileUnit | '',
  resolution: '300',
};

/** Files out of the job, in open formats. */
export function TakeOut() {
  const actions = useBenchActions();
  const blocked = useBench(isBlocked);
  const jobId = useBench((state) => state.jobId);
  const selected = useBench((state) => state.selection.size);
  const [{ kind, scope, paints, guides, resolution, ...kept }, keep] = useKeptSettings('take out', usual);
  const jobUnit = useBench(unitOf);
  const unit = kept.unit || (jobUnit === 'in' ? 'in' : 'mm');
  const [busy, setBusy] = useState(false);
  const queries = useQueryClient();
  const pattern = useQuery({ queryKey: ['settings'], queryFn: api.settings }).data?.fileNames ?? usualFileName;
  const run = useRuns().runs.length + 1;
  const example = useBench((state) => nameFor(state, pattern, run, kind));
  const member = useBench((state) => jobOf(state).member);
  const settle = (fileNames: string) => {
    api
      .settle({ fileNames })
      .then((settings) => queries.setQueryData(['settings'], settings))
      .catch((error) => toast.error(sentenceOf(error)));
  };
  const scoped = scope === 'selection' && selected === 0 ? 'job' : scope;

  const save = async () => {
    const state = actions.get();
    setBusy(true);
    try {
      const choices = {
        paints,
        guides: guides === 'with',
        only: scoped === 'selection' ? state.selection : null,
        onlyBurnt: scoped === 'run',
      };
      const wish = {
        title: state.title,
        format: kind as ArtworkFormat,
        choices,
        unit,
        pixelsPerInch: Number(resolution),
      };
      const blob = await (kind === 'gcode'
        ? work('gcode', [jobOf(state), state.shop, state.title, choiceOf(state)])
        : work('artwork', [jobOf(state), state.shop, wish, choiceOf(state)]));
      download(blob, `${nameFor(state, pattern, run, kind)}.${kind}`);
    } catch (error) {
      toast.error(t('The file was not made. {{error}}', { error: sentenceOf(error) }));
    } finally {
      setBusy(false);
    }
  };
  return (
    <Part title={t('Take out as a file')}>
      <Choice label={t('Format')} value={kind} options={formats} choose={(next) => keep({ kind: next })} />
      {kind !== 'gcode' && (
        <>
          <Choice<Scope>
            label={t('What goes out')}
            value={scoped}
            options={[
              { value: 'job', text: t('The whole job') },
              ...(selected > 0
                ? [{ value: 'selection' as const, text: t('The selection'), aside: String(selected) }]
                : []),
              { value: 'run', text: t('What burns in this run') },
            ]}
            choose={(next) => keep({ scope: next })}
          />
          <Choice
            label={t('Paints')}
            value={paints}
            options={[
              { value: 'as-came', text: t('As they came') },
              { value: 'by-operation', text: t('Of the operations') },
            ]}
            choose={(next) => keep({ paints: next })}
          />
          {scoped !== 'run' && (
            <Choice
              label={t('Guides and notes')}
              value={guides}
              options={[
                { value: 'with', text: t('Included') },
                { value: 'without', text: t('Left out') },
              ]}
              choose={(next) => keep({ guides: next })}
            />
          )}
        </>
      )}
      {(kind === 'svg' || kind === 'dxf') && (
        <Choice<FileUnit>
          label={t('Lengths in')}
          value={unit}
          options={[
            { value: 'mm', text: t('Millimetres') },
            { value: 'in', text: t('Inches') },
          ]}
          choose={(next) => keep({ unit: next })}
        />
      )}
      {kind === 'png' && (
        <Choice
          label={t('Resolution')}
          value={resolution}
          options={['96', '150', '300', '600'].map((value) => ({
            value,
            text: t('{{value}} pixels to the inch', { value }),
          }))}
          choose={(next) => keep({ resolution: next })}
        />
      )}
      <Button disabled={busy || (kind === 'gcode' && blocked)} onClick={() => void save()}>
        <Download size={15} aria-hidden />
        {busy ? t('Making it…') : t('Save {{text}}', { text: formats.find(({ value }) => value === kind)?.text })}
      </Button>
      <p className="mt-1 text-[12px] text-quiet">
        {t('For another shop:')}{' '}
        <a href={`/api/job-files/${jobId}`} download className="font-semibold text-petrol underline">
          {t('the whole job as one file')}
        </a>
        {t(', with its originals, pictures, fonts and recipes.')}
      </p>
      <details>
        <summary className="cursor-pointer truncate text-[12px] text-quiet">
          {t('Named {{example}}.{{kind}}', { example, kind })}
        </summary>
        <NamePart label={t('File names')} value={pattern} needed settle={settle} />
        <NamePart
          label={t('Member this job is for')}
          value={member}
          settle={(typed) => actions.edit(t('say whose job it is'), (job) => setMember(job, typed))}
        />
        <p className="mt-1 text-[12px] text-quiet">
          {t(
            'For the whole shop. What stands in braces is filled in: {job} {member} {material} {thickness} {date} {run}',
          )}
        </p>
      </details>
      {kind === 'gcode' && blocked && (
        <p className="text-[12px] text-quiet">{t('G-code can be saved once nothing blocks.')}</p>
      )}
    </Part>
  );
}

/** One text that file names are made of, settled when it is left. `needed` takes no empty text. */
function NamePart(props: { label: string; value: string; needed?: boolean; settle: (typed: string) => void }) {
  const { label, value, needed, settle } = props;
  return (
    <label className="mt-1.5 flex flex-col gap-1">
      <span className="text-quiet">{label}</span>
      <input
        key={value}
        defaultValue={value}
        maxLength={200}
        className="figures h-8 rounded-lg border border-line bg-raised px-2.5 text-[12.5px] focus:border-petrol focus:outline-none"
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') event.currentTarget.value = value;
        }}
        onBlur={({ currentTarget }) => {
          const typed = currentTarget.value.trim();
          if (typed === '' && needed) currentTarget.value = value;
          else if (typed !== value) settle(typed);
        }}
      />
    </label>
  );
}

/** @param run the number that the next run of this job will have */
function nameFor(state: BenchState, pattern: string, run: number, kind: Format): string {
  const { title, prepared } = state;
  const { material } = prepared;
  const name = kind === 'gcode' ? programNameFor : fileNameFor;
  return name(pattern, {
    job: title,
    member: jobOf(state).member,
    material: material?.name ?? '',
    thickness: material ? t('{{thicknessMm}} mm', { thicknessMm: material.thicknessMm }) : '',
    date: format(new Date(), 'yyyy-MM-dd'),
    // Of several runs, by its name; else which burn of the job it would be.
    run: jobOf(state).runs.length > 1 ? prepared.run.name : String(run),
  });
}
