import type { LaidCard } from '@lambent/core/document';
import { itemsOfCard, removeCard } from '@lambent/core/edits';
import { type BurntOperation, burntOperations, operationOf } from '@lambent/core/operations';
import { layCard } from '@lambent/core/recipes';
import { Button } from '../../ui/button.tsx';
import { OperationMark } from '../../ui/operation-mark.tsx';
import { said, t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { Part } from '../stages/drawer.tsx';
import { jobOf } from '../state/document.ts';
import { MarkSign } from './marks.tsx';
import { useBurns } from './reading.ts';

/** The test cards of the job, and the way to a new one. */
export function CardsPart({ build }: { build: (operation: BurntOperation) => void }) {
  const cards = useBench((state) => jobOf(state).cards);
  const used = useBench((state) => firstUsed(state.prepared.layers.map(({ layer }) => layer.operation)));
  return (
    <Part title={t('Test cards')}>
      {cards.length > 0 && (
        <ul className="flex flex-col gap-2">
          {cards.map((card) => (
            <CardRow key={card.id} laid={card} />
          ))}
        </ul>
      )}
      <Button className="self-start" onClick={() => build(used)}>
        {t('New test card')}
      </Button>
    </Part>
  );
}

function firstUsed(operations: readonly string[]): BurntOperation {
  return burntOperations.find((burntOperation) => operations.includes(burntOperation)) ?? 'cut';
}

function CardRow({ laid }: { laid: LaidCard }) {
  const actions = useBenchActions();
  const burns = useBurns(laid);
  const drawing = useBench((state) => jobOf(state).drawing);
  const runId = useBench((state) => state.prepared.run.id);
  const { wish, marks, best } = laid;
  const card = layCard(wish);
  const items = itemsOfCard({ drawing }, laid.id);
  const marked = Object.keys(marks).length;
  const state =
    items.length === 0
      ? t('not in the drawing any more')
      : marked > 0
        ? t('{{marked}} of {{cells}} graded', { marked, cells: card.cells.length })
        : burns.length > 0
          ? t('burnt, not read yet')
          : t('not burnt yet');
  return (
    <li
      className="rounded-[10px] border border-line bg-raised p-2.5"
      onPointerEnter={() => actions.pointOut(items.map(({ id }) => id))}
      onPointerLeave={() => actions.pointOut([])}
    >
      <p className="flex items-center gap-2 font-bold">
        <OperationMark operation={wish.operation} />
        {t('{{name}}, {{cells}} cells', { name: said(operationOf(wish.operation).name), cells: card.cells.length })}
        {best !== null && <MarkSign mark="best" size={10} />}
      </p>
      <p className="mt-0.5 text-[12px] text-quiet">{state}</p>
      <div className="mt-1.5 flex gap-1.5">
        <Button disabled={items.length === 0} onClick={() => actions.startReading(laid.id)}>
          {t('Read it')}
        </Button>
        {runId !== laid.runId && burns.length === 0 && (
          <Button look="quiet" title={t('Look at the run that burns it')} onClick={() => actions.chooseRun(laid.runId)}>
            {t('Its run')}
          </Button>
        )}
        <Button
          look="quiet"
          onClick={() => actions.edit(t('take the test card off'), (job) => removeCard(job, laid.id))}
        >
          {t('Take it off')}
        </Button>
      </div>
    </li>
  );
}
