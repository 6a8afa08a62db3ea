import { aboutOf, acceptedOf, catalogue, type Finding } from '@lambent/core/checks';
import { acceptFinding, takeBackAccepted } from '@lambent/core/edits';
import { useEffect, useId, useRef, useState } from 'react';
import { useInSentence } from '../../../stores/numbers.ts';
import { Button } from '../../../ui/button.tsx';
import { lowered, said, t } from '../../../words/words.ts';
import { showItems } from '../../bed/showing.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { jobOf } from '../../state/document.ts';
import { isPlanned } from '../../state/plan.ts';

/** The most that is kept of a reason. */
const longestReason = 200;

/** Accepts a finding, once it is said why. */
export function AcceptForm({ finding }: { finding: Finding }) {
  const actions = useBenchActions();
  const current = useBench(isPlanned);
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const field = useRef<HTMLInputElement>(null);
  const id = useId();
  useEffect(() => {
    if (open) field.current?.focus();
  }, [open]);
  if (!open) return <Button onClick={() => setOpen(true)}>{t('Accept…')}</Button>;
  const why = reason.trim();
  return (
    <form
      className="flex w-full flex-col gap-1.5 border-t border-line pt-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (why === '' || !current) return;
        const title = lowered(said(catalogue[finding.code].title));
        actions.edit(t('accept “{{title}}”', { title }), (job) => acceptFinding(job, acceptedOf(finding, job, why)));
      }}
    >
      <label htmlFor={id} className="text-quiet">
        {t('Why it is fine')}
      </label>
      <input
        id={id}
        ref={field}
        value={reason}
        maxLength={longestReason}
        onChange={(event) => setReason(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') setOpen(false);
        }}
        className="h-8 rounded-lg border border-line bg-raised px-2.5"
      />
      <div className="flex gap-1.5">
        <Button type="submit" look="main" disabled={why === '' || !current}>
          {t('Accept')}
        </Button>
        <Button onClick={() => setOpen(false)}>{t('Cancel')}</Button>
      </div>
    </form>
  );
}

/** What was decided where a file did not say: accepted each, or all at once. */
export function DecidedPart({ findings }: { findings: readonly Finding[] }) {
  const inSentence = useInSentence();
  const actions = useBenchActions();
  const current = useBench(isPlanned);
  if (findings.length === 0) return null;
  const accept = (some: readonly Finding[]) =>
    actions.edit(
      some.length === 1 ? t('accept what was decided') : t('accept {{some}} decisions', { some: some.length }),
      (job) => some.reduce((now, finding) => acceptFinding(now, acceptedOf(finding, now, t('as decided'))), job),
    );
  return (
    <section aria-label={t('Decided for you')} className="flex flex-col gap-1.5 border-t border-line pt-3">
      <h2 className="flex justify-between font-semibold">
        {t('Decided for you')} <span className="figures font-normal text-quiet">{findings.length}</span>
      </h2>
      <ul className="flex flex-col gap-2">
        {findings.map((finding) => (
          <li
            key={finding.about}
            className="flex items-start gap-2"
            data-testid="decided"
            onPointerEnter={() => actions.pointOut(finding.itemIds)}
            onPointerLeave={() => actions.pointOut([])}
          >
            <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
              {inSentence(finding.message)}
              {finding.itemIds.length > 0 && (
                <button
                  type="button"
                  className="ml-1 font-semibold text-petrol hover:underline"
                  onClick={() => showItems(actions, finding.itemIds)}
                >
                  {t('Show')}
                </button>
              )}
            </span>
            <Button
              disabled={!current}
              aria-label={t('Accept: {{message}}', { message: finding.message })}
              onClick={() => accept([finding])}
            >
              {t('Accept')}
            </Button>
          </li>
        ))}
      </ul>
      {findings.length > 1 && (
        <Button disabled={!current} onClick={() => accept(findings)}>
          {t('Accept all {{findings}}', { findings: findings.length })}
        </Button>
      )}
    </section>
  );
}

/** What was accepted: it stays listed, with why, and can be taken back. */
export function AcceptedPart({ findings }: { findings: readonly Finding[] }) {
  const actions = useBenchActions();
  const current = useBench(isPlanned);
  if (findings.length === 0) return null;
  return (
    <section aria-label={t('Accepted')} className="flex flex-col gap-1.5 border-t border-line pt-3">
      <h2 className="flex justify-between font-semibold">
        {t('Accepted')} <span className="figures font-normal text-quiet">{findings.length}</span>
      </h2>
      <ul className="flex flex-col gap-2">
        {findings.map((finding, i) => (
          <li
            key={`${finding.code} ${i}`}
            className="flex items-start gap-2"
            data-testid={`accepted-${finding.code}`}
            onPointerEnter={() => actions.pointOut(finding.itemIds)}
            onPointerLeave={() => actions.pointOut([])}
          >
            <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
              {finding.code === 'decided' ? finding.message : said(catalogue[finding.code].title)}
              <span className="block text-quiet">{finding.accepted}</span>
            </span>
            <Button
              disabled={!current}
              aria-label={t('Take back: {{title}}', { title: said(catalogue[finding.code].title) })}
              onClick={() =>
                actions.edit(t('take back what was accepted'), (job) =>
                  takeBackAccepted(job, new Set([aboutOf(finding, jobOf(actions.get()))])),
                )
              }
            >
              {t('Take back')}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
