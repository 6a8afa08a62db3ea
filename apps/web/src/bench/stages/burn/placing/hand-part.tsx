import type { MachineState } from '@lambent/contracts';
import { anchorPoint, boundsOfAll } from '@lambent/core/document';
import { setMark } from '@lambent/core/edits';
import { isEmpty } from '@lambent/core/geometry';
import { fromMachine, type Machine, toMachine } from '@lambent/core/machine';
import { toProgramGrid } from '@lambent/core/plan';
import { useMemo } from 'react';
import { HandPad } from '../../../../hand/hand-pad.tsx';
import { isFreeByHand } from '../../../../hand/hand-state.ts';
import { useHand } from '../../../../hand/use-hand.ts';
import { Button } from '../../../../ui/button.tsx';
import { NinePoints } from '../../../../ui/nine-points.tsx';
import { t } from '../../../../words/words.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { Part } from '../../drawer.tsx';
import { WalkFields } from './walk-fields.tsx';

/** Moves the head before a run: by hand, to points of the run, around it. */
export function HandPart({ machine, state }: { machine: Machine; state: MachineState }) {
  return (
    <Part title={t('Head by hand')} folds>
      <HandPad machine={machine} state={state}>
        <ToRun machine={machine} state={state} />
      </HandPad>
      <WalkFields machine={machine} state={state} />
    </Part>
  );
}

/** To the points of what burns, and the mark to where the head is. */
function ToRun({ machine, state }: { machine: Machine; state: MachineState }) {
  const actions = useBenchActions();
  const hand = useHand(machine.id);
  const layers = useBench((bench) => bench.prepared.layers);
  const bounds = useMemo(
    () => boundsOfAll(layers.flatMap(({ burns, placed }) => (burns ? placed.map(({ item }) => item) : []))),
    [layers],
  );
  // With the red pointer on, that is what goes there.
  const shift = state.pointer && machine.pointer ? machine.pointer : { x: 0, y: 0 };
  const goTo = (point: { u: number; v: number }) => {
    const { x, y } = anchorPoint(bounds, point);
    const place = toMachine(machine, x, y);
    hand.go({ x: toProgramGrid(place.x - shift.x), y: toProgramGrid(place.y - shift.y) });
  };
  const mark = () => {
    const place = fromMachine(machine, state.x + shift.x, state.y + shift.y);
    actions.edit(t('mark where the head is'), (job) => setMark(job, place));
  };
  return (
    <div className="flex items-center gap-3">
      <NinePoints
        label={t('Move the head to the run’s')}
        value={null}
        disabled={!isFreeByHand(state) || isEmpty(bounds)}
        choose={goTo}
      />
      <div className="flex min-w-0 flex-1 flex-col gap-1.5 text-[12px]">
        <p className="leading-4 text-quiet">{t('To a corner, a side or the middle of what burns.')}</p>
        <Button disabled={state.state === 'away'} onClick={mark}>
          {t('Set the mark here')}
        </Button>
      </div>
    </div>
  );
}
