import type { MachineState, WalkDto } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import { useMutation } from '@tanstack/react-query';
import { Footprints, Square } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../../../../api.ts';
import { useHand } from '../../../../hand/use-hand.ts';
import { Button } from '../../../../ui/button.tsx';
import { Choice } from '../../../../ui/choice.tsx';
import { PressButton } from '../../../../ui/press-button.tsx';
import { SpeedField } from '../../../../ui/speed-field.tsx';
import { Tick } from '../../../../ui/tick.tsx';
import { t } from '../../../../words/words.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { saveNow } from '../../../use-autosave.ts';

const shapes: readonly { value: WalkDto['shape']; text: string }[] = [
  { value: 'rectangle', text: t('rectangle') },
  { value: 'hull', text: t('hull') },
  { value: 'outlines', text: t('outlines') },
];
/** Slow enough to be followed by eye, in mm/s. */
const usualSpeed = 100;

/** Has the head go around the run, unlit, until it is stopped. */
export function WalkFields({ machine, state }: { machine: Machine; state: MachineState }) {
  const actions = useBenchActions();
  const hand = useHand(machine.id);
  const [shape, setShape] = useState<WalkDto['shape']>('rectangle');
  const [speed, setSpeed] = useState(Math.min(usualSpeed, machine.topSpeed));
  const [byPointer, setByPointer] = useState(false);
  const runId = useBench((bench) => bench.prepared.run.id);
  const walk = useMutation({
    mutationFn: async () => {
      await saveNow(actions);
      const { save, stored, jobId } = actions.get();
      if (save.kind !== 'saved') throw new Error(t('The job could not be saved, so its bounds are not known.'));
      const spot = byPointer && machine.pointer ? 'pointer' : 'beam';
      await api.walk(jobId, { version: stored.version, runId, shape, speed, spot });
    },
    onError: (error) => toast.error(sentenceOf(error)),
  });
  const take = (mmPerS: number) => {
    if (!(mmPerS >= 1)) return t('1 mm/s at least.');
    setSpeed(Math.min(mmPerS, machine.topSpeed));
    return undefined;
  };
  const isWalking = state.errand?.kind === 'walk';
  return (
    <div className="flex flex-col gap-1.5">
      <Choice label={t('Walk its')} value={shape} options={shapes} choose={setShape} />
      <SpeedField label={t('Walking speed')} topSpeed={machine.topSpeed} value={speed} commit={take} />
      {machine.pointer && (
        <Tick checked={byPointer} set={setByPointer}>
          {t('So that the red pointer goes along it')}
        </Tick>
      )}
      {isWalking ? (
        <PressButton look="main" act={() => hand.tell('stop')}>
          <Square size={14} aria-hidden />
          {t('Stop walking')}
        </PressButton>
      ) : (
        <Button disabled={walk.isPending || state.state !== 'idle'} onClick={() => walk.mutate()}>
          <Footprints size={15} aria-hidden />
          {walk.isPending ? t('Working it out…') : t('Walk the bounds, unlit')}
        </Button>
      )}
    </div>
  );
}
