import type { RunAnswer } from '@lambent/contracts';
import type { ProgramWays } from '@lambent/core/formats';
import { useMutation } from '@tanstack/react-query';
import { ChevronLeft, ChevronRight, Flame } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../../../../api.ts';
import { useWho } from '../../../../stores/who.ts';
import { Button, IconButton } from '../../../../ui/button.tsx';
import { Choice } from '../../../../ui/choice.tsx';
import { Notice } from '../../../../ui/notice.tsx';
import { NumberField } from '../../../../ui/number-field.tsx';
import { t } from '../../../../words/words.ts';
import { moveOfLine } from '../../../burnt/draw-ways.ts';
import { useProgramWays } from '../../../burnt/program-ways.ts';
import { useBenchActions } from '../../../context.ts';
import { chooseTool } from '../../../tools/choose.ts';
import { BeginningTool } from './beginning-tool.ts';
import { drawRest } from './draw-rest.ts';
import { pieceAt, stepAt } from './program-places.ts';

/** Chooses from where a run that did not come to its end goes on: by its step, piece or line, or on its picture. */
export default function GoingOn({ run, leave }: { run: RunAnswer; leave: () => void }) {
  const ways = useProgramWays(run);
  if (ways.isError) return <Notice level="blocks">{sentenceOf(ways.error)}</Notice>;
  if (!ways.data) return <p className="text-[12px] text-quiet">{t('Reading its program…')}</p>;
  if (ways.data.pieces.length === 0) return <p className="text-[12px] text-quiet">{t('Nothing of it burns.')}</p>;
  return <Chooser run={run} ways={ways.data} leave={leave} />;
}

function Chooser({ run, ways, leave }: { run: RunAnswer; ways: ProgramWays; leave: () => void }) {
  const actions = useBenchActions();
  const who = useWho();
  // What was under way when it ended burns anew: better twice than not at all.
  const [move, setMove] = useState(() => Math.min(moveOfLine(ways, run.doneLine + 1), ways.xs.length - 1));
  const goOn = useMutation({
    mutationFn: () => api.goOn(run.id, { fromLine: ways.lines[move], ...(who ? { by: who } : {}) }),
    onSuccess: leave,
    onError: (error) => toast.error(sentenceOf(error)),
  });
  useEffect(() => {
    actions.get().tool?.cancel();
    actions.takeTool(new BeginningTool(actions, ways, setMove));
    return () => {
      actions.drawOver(null);
      chooseTool(actions, 'pick');
    };
  }, [actions, ways]);
  useEffect(() => actions.drawOver((context, view) => drawRest(context, view, ways, move)), [actions, ways, move]);
  const piece = pieceAt(ways, move);
  const step = stepAt(ways, move);
  const steps = useMemo(() => ways.steps.map(({ title }, i) => ({ value: String(i), text: title })), [ways]);
  const litAfter = (from: number) => ways.lit.indexOf(1, from);
  const goTo = (next: number) => setMove(Math.max(0, Math.min(ways.xs.length - 1, next)));
  return (
    <fieldset
      className="mt-1.5 flex min-w-0 flex-col gap-2 border-t border-line pt-2"
      aria-label={t('From where it goes on')}
    >
      <p className="text-[12px] text-quiet">
        {t('It had come to line {{doneLine}} of {{lines}}. Click on the bed where it goes on, or say it here.', {
          doneLine: run.doneLine,
          lines: run.lines,
        })}
      </p>
      <Choice
        label={t('From the step')}
        look="slim"
        value={String(step)}
        options={steps}
        choose={(value) => goTo(litAfter(ways.steps[Number(value)].move))}
      />
      <Stepper
        label={t('piece')}
        shown={t('{{piece}} of {{pieces}}', { piece: piece + 1, pieces: ways.pieces.length })}
        back={piece > 0 ? () => goTo(ways.pieces[move === ways.pieces[piece] ? piece - 1 : piece]) : null}
        on={piece + 1 < ways.pieces.length ? () => goTo(ways.pieces[piece + 1]) : null}
      />
      <div className="flex items-center gap-1.5">
        <NumberField
          label={t('Line')}
          value={ways.lines[move]}
          least={ways.lines[0]}
          most={ways.lines[ways.lines.length - 1]}
          whole
          commit={(line) => goTo(moveOfLine(ways, line))}
        />
        <IconButton label={t('One line back')} disabled={move === 0} onClick={() => goTo(move - 1)}>
          <ChevronLeft size={15} aria-hidden />
        </IconButton>
        <IconButton label={t('One line on')} disabled={move === ways.xs.length - 1} onClick={() => goTo(move + 1)}>
          <ChevronRight size={15} aria-hidden />
        </IconButton>
      </div>
      <input
        type="range"
        min={0}
        max={ways.xs.length - 1}
        value={move}
        aria-label={t('Where it goes on')}
        aria-valuetext={t('line {{lines}}', { lines: ways.lines[move] })}
        onChange={(event) => goTo(Number(event.target.value))}
        className="accent-petrol"
      />
      <p className="text-[12px]">
        {t(
          'Orange burns, grey was burnt. The stock has to lie where it lay. The head runs up unlit to where it goes on.',
        )}
      </p>
      <div className="flex flex-wrap gap-1.5">
        <Button look="main" disabled={goOn.isPending} onClick={() => goOn.mutate()}>
          <Flame size={15} aria-hidden />
          {goOn.isPending ? t('Sending…') : t('Go on from line {{lines}}', { lines: ways.lines[move] })}
        </Button>
        <Button look="quiet" onClick={leave}>
          {t('Never mind')}
        </Button>
      </div>
    </fieldset>
  );
}

interface StepperProps {
  label: string;
  shown: string;
  /** Null where there is none. */
  back: (() => void) | null;
  on: (() => void) | null;
}

function Stepper({ label, shown, back, on }: StepperProps) {
  return (
    <div className="flex items-center gap-1.5">
      <span className="min-w-0 flex-1">
        <span className="text-quiet capitalize">{label}</span> <span className="figures text-[12.5px]">{shown}</span>
      </span>
      <IconButton label={t('The {{label}} before', { label })} disabled={!back} onClick={() => back?.()}>
        <ChevronLeft size={15} aria-hidden />
      </IconButton>
      <IconButton label={t('The next {{label}}', { label })} disabled={!on} onClick={() => on?.()}>
        <ChevronRight size={15} aria-hidden />
      </IconButton>
    </div>
  );
}
