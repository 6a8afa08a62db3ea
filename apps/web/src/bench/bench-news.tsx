import type { Finding } from '@lambent/core/checks';
import { useEffect, useRef } from 'react';
import { announce } from '../stores/announcer.ts';
import { counted } from '../ui/counted.ts';
import { t } from '../words/words.ts';
import { useBench } from './context.ts';
import type { SaveState } from './state/document.ts';
import { findingsOf, isPlanned } from './state/plan.ts';

/** Says to screen readers what changes out of their sight: whether the job is saved, and what the checks found. */
export function BenchNews() {
  const save = useBench((state) => state.save);
  const wasTroubled = useRef(false);
  const trouble = troubleInWords(save);
  const isSaved = save.kind === 'saved';
  useEffect(() => {
    if (trouble) {
      announce(trouble, true);
      wasTroubled.current = true;
    } else if (isSaved && wasTroubled.current) {
      announce(t('The job is saved.'));
      wasTroubled.current = false;
    }
  }, [trouble, isSaved]);

  const findings = useBench((state) => (isPlanned(state) ? findingsOf(state) : null));
  const last = useRef<string | null>(null);
  useEffect(() => {
    if (findings === null) return;
    const found = foundInWords(findings);
    // What there was when the job was opened is no news.
    if (last.current !== null && last.current !== found) announce(found);
    last.current = found;
  }, [findings]);
  return null;
}

function troubleInWords(save: SaveState): string | null {
  switch (save.kind) {
    case 'conflict':
      return t('The job was changed elsewhere, and is not saved.');
    case 'deleted':
      return t('The job was deleted elsewhere, and is not saved.');
    case 'failed':
      return t('The job is not saved. Trying again.');
    case 'refused':
      return t('The job is not saved: {{message}}', { message: save.message });
    default:
      return null;
  }
}

/** What the checks found, by how grave it is. */
export function foundInWords(findings: readonly Pick<Finding, 'level'>[]): string {
  const count = (wanted: Finding['level']) => findings.filter(({ level }) => level === wanted).length;
  const [blocking, warnings] = [count('blocks'), count('warns')];
  if (blocking > 0)
    return t(
      blocking === 1 ? 'The checks: 1 finding blocks the burn.' : 'The checks: {{blocking}} findings block the burn.',
      { blocking },
    );
  return warnings > 0
    ? t('The checks: nothing blocks; {{warnings}}.', { warnings: counted(warnings, 'warning') })
    : t('The checks: nothing is found.');
}
