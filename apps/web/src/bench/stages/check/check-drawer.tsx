import type { Finding } from '@lambent/core/checks';
import { CircleCheck } from 'lucide-react';
import { useMemo } from 'react';
import { Notice } from '../../../ui/notice.tsx';
import { t } from '../../../words/words.ts';
import { useBench } from '../../context.ts';
import { findingsOf, isPlanned } from '../../state/plan.ts';
import { Drawer } from '../drawer.tsx';
import { AcceptedPart, DecidedPart } from './accepting.tsx';
import { FindingCard } from './finding-card.tsx';
import { MendAll } from './mend-all.tsx';

/** What the checks found, before the machine does. */
export function CheckDrawer() {
  const all = useBench(findingsOf);
  const { open: findings, decided, accepted } = useMemo(() => sorted(all), [all]);
  const current = useBench(isPlanned);
  const trouble = useBench((state) => state.planning.trouble);
  return (
    <Drawer title={t('Check')} aside={current ? countsOf(findings ?? []) : 'checking…'}>
      {trouble && (
        <Notice level="blocks" title={t('The plan could not be worked out')}>
          {trouble}
        </Notice>
      )}
      {findings?.length === 0 && (
        <div className="flex flex-col items-center gap-2 rounded-xl border border-line bg-raised px-4 py-8 text-center">
          <CircleCheck size={28} className="text-settled" aria-hidden />
          <p className="font-semibold">{t('Nothing stands in the way')}</p>
          <p className="text-quiet">
            {t('On the bed and the sheet, every colour with a meaning, every layer with settings the machine can do.')}
          </p>
        </div>
      )}
      {findings && <MendAll findings={findings} />}
      <ul className="flex flex-col gap-2.5">
        {findings?.map((finding, i) => (
          <li key={`${finding.code} ${i}`}>
            <FindingCard finding={finding} />
          </li>
        ))}
      </ul>
      <DecidedPart findings={decided} />
      <AcceptedPart findings={accepted} />
    </Drawer>
  );
}

/** What stands open, what was decided and waits to be accepted, and what is accepted. */
function sorted(all: readonly Finding[] | null) {
  const isOpen = ({ accepted }: Finding) => accepted === undefined;
  return {
    open: all?.filter((finding) => isOpen(finding) && finding.code !== 'decided') ?? null,
    decided: all?.filter((finding) => isOpen(finding) && finding.code === 'decided') ?? [],
    accepted: all?.filter((finding) => !isOpen(finding)) ?? [],
  };
}

/** How many findings there are of each weight, such as `1 blocks · 3 warn`. */
function countsOf(findings: readonly Finding[]): string {
  const words = {
    blocks: [t('blocks'), t('block')],
    warns: [t('warns'), t('warn')],
    notes: [t('note'), t('notes')],
  };
  const parts = (['blocks', 'warns', 'notes'] as const).flatMap((level) => {
    const count = findings.filter((finding) => finding.level === level).length;
    return count === 0 ? [] : [`${count} ${words[level][count === 1 ? 0 : 1]}`];
  });
  return parts.length === 0 ? t('nothing found') : parts.join(' · ');
}
