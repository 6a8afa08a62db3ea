import { formatClock } from '@lambent/core/units';
import { Pause, Play, RotateCcw } from 'lucide-react';
import { useEffect, useState } from 'react';
import { IconButton } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { formatDuration } from '../../../ui/figures.ts';
import { Tick } from '../../../ui/tick.tsx';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { useKeptSettings } from '../../kept-settings.ts';
import { Part } from '../drawer.tsx';

const speeds = ['1', '5', '20', '50', '200'] as const;
const usual = { speed: '20' as (typeof speeds)[number] };

/** Plays the plan on the bed. */
export function PreviewPart({ timeS }: { timeS: number }) {
  const actions = useBenchActions();
  const previewS = useBench((state) => state.previewS);
  const showsUnlit = useBench((state) => state.showsUnlit);
  const [playing, setPlaying] = useState(false);
  const [{ speed }, keep] = useKeptSettings('preview', usual);

  useEffect(() => {
    if (!playing) return;
    let frame = 0;
    let last = performance.now();
    const tick = (now: number) => {
      const next = (actions.get().previewS ?? 0) + ((now - last) / 1000) * Number(speed);
      last = now;
      actions.preview(Math.min(timeS, next));
      if (next >= timeS) setPlaying(false);
      else frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [playing, speed, timeS, actions]);

  // The preview goes with its drawer.
  useEffect(() => () => actions.preview(null), [actions]);

  const play = () => {
    if (!playing && (previewS ?? 0) >= timeS) actions.preview(0);
    setPlaying(!playing);
  };
  return (
    <Part title={t('Preview')}>
      <div className="flex items-center gap-1.5">
        <IconButton
          label={playing ? t('Pause the preview') : t('Play the preview')}
          onClick={play}
          className="border border-line"
        >
          {playing ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />}
        </IconButton>
        <input
          type="range"
          min={0}
          max={timeS}
          step="any"
          value={previewS ?? 0}
          aria-label={t('Place in the preview')}
          aria-valuetext={formatDuration(previewS ?? 0)}
          onChange={(event) => actions.preview(Number(event.target.value))}
          className="min-w-0 flex-1 accent-petrol"
        />
        <IconButton
          label={t('Leave the preview')}
          disabled={previewS === null}
          onClick={() => {
            setPlaying(false);
            actions.preview(null);
          }}
        >
          <RotateCcw size={16} aria-hidden />
        </IconButton>
      </div>
      <div className="flex items-center justify-between">
        <span className="figures text-[12.5px]">
          {t('{{previewS}} of {{timeS}}', { previewS: formatClock(previewS ?? 0), timeS: formatClock(timeS) })}
        </span>
        <Choice
          label={t('Speed of the preview')}
          look="chip"
          value={speed}
          options={speeds.map((times) => ({ value: times, text: `${times}×` }))}
          choose={(next) => keep({ speed: next })}
        />
      </div>
      <Tick checked={showsUnlit} set={actions.showUnlit}>
        {t('Show where the head goes unlit')}
      </Tick>
      {previewS !== null && <p className="text-[12px] text-quiet">{t('A click on the burn strip goes to a step.')}</p>}
    </Part>
  );
}
