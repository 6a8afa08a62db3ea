import { catalogue, type Finding } from '@lambent/core/checks';
import { type Mend, mended, mendPreview } from '@lambent/core/mends';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useInSentence } from '../../../stores/numbers.ts';
import { Button } from '../../../ui/button.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { said, t } from '../../../words/words.ts';
import { showItems, showPlace } from '../../bed/showing.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { jobOf } from '../../state/document.ts';
import { isPlanned } from '../../state/plan.ts';
import { editText } from '../../tools/text-tool.ts';
import { AcceptForm } from './accepting.tsx';
import { MendEffect } from './mend-effect.tsx';

/** One thing that the checks found: what, where and why, and what puts it right. */
export function FindingCard({ finding }: { finding: Finding }) {
  const inSentence = useInSentence();
  const actions = useBenchActions();
  const { itemIds, places = [], mends = [] } = finding;
  const { title, why } = catalogue[finding.code];
  const [shown, setShown] = useState(0);
  const [pointed, setPointed] = useState<Mend | null>(null);
  return (
    <div
      onPointerEnter={() => actions.pointOut(itemIds)}
      onPointerLeave={() => actions.pointOut([])}
      data-testid={`finding-${finding.code}`}
    >
      <Notice level={finding.level} title={said(title)}>
        <p>{inSentence(finding.message)}</p>
        <p className="text-quiet">{said(why)}</p>
        <div className="flex flex-wrap gap-1.5 pt-2 empty:hidden">
          <WayButton finding={finding} />
          {mends.map((mend, i) => (
            <MendButton
              key={mend.words}
              mend={mend}
              isUsual={i === 0 && finding.level === 'blocks' && mend.isSafe}
              point={setPointed}
            />
          ))}
          {itemIds.length > 0 && (
            <Button onClick={() => showItems(actions, itemIds)}>
              {itemIds.length === 1 ? t('Show it') : t('Show the {{itemIds}}', { itemIds: itemIds.length })}
            </Button>
          )}
          {places.length > 0 && (
            <Button
              onClick={() => {
                actions.select(itemIds);
                showPlace(actions, places[shown % places.length]);
                setShown(shown + 1);
              }}
            >
              {places.length === 1
                ? t('Go to the place')
                : t('Go to place {{shown}} of {{places}}', {
                    shown: (shown % places.length) + 1,
                    places: places.length,
                  })}
            </Button>
          )}
          {finding.level !== 'blocks' && <AcceptForm finding={finding} />}
        </div>
        {pointed && <MendEffect mend={pointed} />}
      </Notice>
    </div>
  );
}

const needTestCard: ReadonlySet<Finding['code']> = new Set(['no-recipe', 'worked-out']);

/** What the button says that opens the first text of a finding, to be written or set anew. */
const textButtons: Partial<Record<Finding['code'], string>> = {
  'small-letters': t('Another face…'),
  'fine-detail': t('Another face…'),
  'field-unfilled': t('Write it…'),
  'text-over-frame': t('Shorten it…'),
};

/**
 * Leads to where a finding is put right that no press can: a colour's meaning, a text to be written or set otherwise, or
 * a test card where nobody has burnt yet.
 */
function WayButton({ finding: { code, layerId, itemIds } }: { finding: Finding }) {
  const navigate = useNavigate();
  const jobId = useBench((state) => state.jobId);
  const operation = useBench((state) => state.prepared.meaning.layers.find(({ id }) => id === layerId)?.operation);
  const hasSheet = useBench((state) => jobOf(state).sheets.length > 0);
  if (code === 'colour-without-meaning') {
    return (
      <Button look="main" onClick={() => void navigate(`/jobs/${jobId}/colours`, { replace: true })}>
        {t('Say what it means')}
      </Button>
    );
  }
  const words = textButtons[code];
  if (words) return <TextButton words={words} itemIds={itemIds} />;
  if (!needTestCard.has(code) || !operation || !hasSheet) return null;
  return (
    <Button onClick={() => void navigate(`/jobs/${jobId}/recipe`, { replace: true, state: { testCard: operation } })}>
      {t('Make a test card')}
    </Button>
  );
}

/** Opens the first text among items: what becomes of it is seen on the bed while it is written. */
function TextButton({ words, itemIds }: { words: string; itemIds: readonly string[] }) {
  const actions = useBenchActions();
  const textId = useBench((state) => {
    const ids = new Set(itemIds);
    return jobOf(state).drawing.items.find(({ id, shape }) => shape.kind === 'text' && ids.has(id))?.id;
  });
  if (textId === undefined) return null;
  return (
    <Button
      onClick={() => {
        showItems(actions, [textId]);
        editText(actions, textId);
      }}
    >
      {words}
    </Button>
  );
}

/** Does a mend on a press; what it would change is seen on the bed while the pointer or the focus is on it. */
function MendButton({ mend, isUsual, point }: { mend: Mend; isUsual: boolean; point: (mend: Mend | null) => void }) {
  const inSentence = useInSentence();
  const actions = useBenchActions();
  // Until the checks know the job as it is now, a mend may be of what is there no longer.
  const current = useBench(isPlanned);
  const shows = useRef(false);
  const show = () => {
    shows.current = true;
    point(mend);
    actions.showDraft(mendPreview(jobOf(actions.get()), mend));
  };
  // A draft that a tool shows is not taken away.
  const hide = useCallback(() => {
    if (!shows.current) return;
    actions.showDraft(null);
    point(null);
    shows.current = false;
  }, [actions, point]);
  // The button goes with its finding, and takes what it shows along.
  useEffect(() => hide, [hide]);
  return (
    <Button
      look={isUsual ? 'main' : 'plain'}
      className="!h-auto min-h-8 pointer-coarse:min-h-11 !whitespace-normal py-1 text-left"
      disabled={!current}
      onPointerEnter={show}
      onPointerLeave={hide}
      onFocus={show}
      onBlur={hide}
      onClick={() => {
        hide();
        actions.edit(mend.name, (job) => mended(job, mend));
      }}
    >
      {inSentence(mend.words)}
    </Button>
  );
}
