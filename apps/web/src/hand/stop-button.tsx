import type { MachineState } from '@lambent/contracts';
import { type ReactNode, useEffect, useState } from 'react';
import { Button } from '../ui/button.tsx';
import { PressButton } from '../ui/press-button.tsx';
import { t } from '../words/words.ts';
import { useHand } from './use-hand.ts';

/**
 * Stops a machine for good. While it burns it holds first, so that the beam is off at once, and asks: what is stopped
 * loses the rest of its run. It does so on the way from one shape to the next, too.
 * @param children the buttons beside it, which go while it asks
 */
export function StopButton({ state, children }: { state: MachineState; children?: ReactNode }) {
  const hand = useHand(state.machineId);
  const [isAsked, setAsked] = useState(false);
  const mayGoOn = state.state === 'held' || state.state === 'running';
  useEffect(() => {
    if (!mayGoOn) setAsked(false);
  }, [mayGoOn]);
  const press = () => {
    if (state.power > 0 || (state.state === 'running' && state.runId !== null)) {
      setAsked(true);
      hand.tell('hold');
    } else {
      setAsked(false);
      hand.tell('stop');
    }
  };
  if (!isAsked || !mayGoOn) {
    return (
      <>
        {children}
        <PressButton look="danger" act={press}>
          {t('Stop')}
        </PressButton>
      </>
    );
  }
  return (
    <div className="flex w-full flex-col gap-2" role="alert">
      <p>
        {state.state === 'held'
          ? t('It is held, and the beam is off. Stop drops the rest of this run.')
          : t('It is told to hold.')}
      </p>
      <div className="flex gap-2">
        <PressButton
          look="danger"
          act={() => {
            setAsked(false);
            hand.tell('stop');
          }}
        >
          {t('Stop for good')}
        </PressButton>
        <Button
          onClick={() => {
            setAsked(false);
            hand.tell('resume');
          }}
        >
          {t('Go on')}
        </Button>
      </div>
    </div>
  );
}
