import type { Landing, Sheet } from '@lambent/core/document';
import { changeRun } from '@lambent/core/edits';
import { landingNeeds } from '@lambent/core/plan';
import { Choice } from '../../../../ui/choice.tsx';
import { LengthField } from '../../../../ui/length-field.tsx';
import { NinePoints, pointName } from '../../../../ui/nine-points.tsx';
import { said, t } from '../../../../words/words.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { jobOf, unitOf } from '../../../state/document.ts';
import { Part } from '../../drawer.tsx';
import { MarksFields } from './marks-fields.tsx';
import { OwnSheetFields } from './own-sheet-fields.tsx';

const kinds: readonly { value: Landing['kind']; text: string }[] = [
  { value: 'as-drawn', text: t('As it is drawn') },
  { value: 'stock', text: t('At its sheet') },
  { value: 'sheet', text: t('On a sheet of its own') },
  { value: 'mark', text: t('At the mark') },
  { value: 'head', text: t('At the head') },
  { value: 'marks', text: t('By two points') },
];

/**
 * A landing of a kind to begin with; the point that lands stays. A sheet of its own is the job's last, which is laid where the
 * first one lies.
 */
function landingOf(kind: Landing['kind'], before: Landing, sheets: readonly Sheet[]): Landing {
  if (kind === 'sheet') {
    const [first] = sheets;
    return { kind, sheetId: sheets.at(-1)?.id ?? '', x: first?.x ?? 0, y: first?.y ?? 0 };
  }
  const { u, v } = 'u' in before ? before : { u: 0, v: 0 };
  if (kind === 'as-drawn') return { kind };
  if (kind === 'marks') return { kind, marks: [], isScaled: false };
  return kind === 'stock' ? { kind, u, v, inset: 0 } : { kind, u, v };
}

/** Where on the bed the run burns. */
export function WherePart() {
  const actions = useBenchActions();
  const run = useBench((state) => state.prepared.run);
  const landed = useBench((state) => state.prepared.landed);
  const unit = useBench(unitOf);
  const sheets = useBench((state) => jobOf(state).sheets);
  const { landing } = run;
  const land = (next: Landing) =>
    actions.edit(t('where {{name}} burns', { name: run.name }), (job) => changeRun(job, run.id, { landing: next }));
  return (
    <Part title={t('Where it burns')}>
      <Choice
        label={t('Where it burns')}
        bare
        value={landing.kind}
        // A sheet is laid for one run alone only where there are others.
        options={kinds.filter(({ value }) => value !== 'sheet' || value === landing.kind || sheets.length > 1)}
        choose={(kind) => kind !== landing.kind && land(landingOf(kind, landing, sheets))}
      />
      {'u' in landing && (
        <div className="flex items-start gap-3">
          <NinePoints label={t('Lands by its')} value={landing} choose={(point) => land({ ...landing, ...point })} />
          <div className="flex min-w-0 flex-1 flex-col gap-1.5 text-[12px]">
            <p>
              {t('By its')} <b>{pointName(landing)}</b>,{' '}
              {landing.kind === 'stock'
                ? t('at the same point of its sheet.')
                : t('at the {{kind}}.', { kind: landing.kind })}
            </p>
            {landing.kind === 'stock' && (
              <LengthField
                label={t('From its edges')}
                layout="row"
                unit={unit}
                takes="not-below-0"
                value={landing.inset}
                commit={(inset) => land({ ...landing, inset })}
              />
            )}
          </div>
        </div>
      )}
      {landing.kind === 'sheet' && <OwnSheetFields landing={landing} land={land} />}
      {landing.kind === 'marks' && <MarksFields landing={landing} land={land} />}
      {landed.needs && landed.needs !== 'marks' && (
        <p className="text-[12px] text-warn">
          {said(landingNeeds[landed.needs])}
          {landed.needs === 'mark' && t(' M marks the point under the pointer.')}
        </p>
      )}
    </Part>
  );
}
