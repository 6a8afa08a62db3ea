import { fromMachine } from '@lambent/core/machine';
import type { PlanStep } from '@lambent/core/plan';
import { burnShares } from '@lambent/core/recipes';
import { useMemo } from 'react';
import { useLive } from '../../stores/live.ts';
import { useBench } from '../context.ts';
import { machineOf } from '../state/document.ts';
import { planOf } from '../state/plan.ts';
import { useShownRun } from '../use-shown-run.ts';
import { BurnPainter, headAt } from './draw-burn.ts';
import { Circle, Group, Layer, Line, Shape } from './konva.ts';
import { toScreen } from './view.ts';

/** What is burnt so far, and the head: in the preview, and while the machine runs. */
export function HeadLayer({ size }: { size: { readonly width: number; readonly height: number } }) {
  const view = useBench((state) => state.view);
  const machine = useBench(machineOf);
  const plan = useBench(planOf);
  const previewS = useBench((state) => state.previewS);
  const run = useShownRun();
  const live = useLive((state) => state.machines[machine.id]);
  const prepared = useBench((state) => state.prepared);
  const drawnOver = useBench((state) => state.drawnOver);
  const showsUnlit = useBench((state) => state.showsUnlit);
  const painter = useMemo(() => new BurnPainter(), []);
  const sharesOf = ({ preparedId, operation, settings }: PlanStep) => {
    const stock = prepared.layers.find(({ id }) => id === preparedId)?.material ?? null;
    return burnShares(operation, settings, stock, machine);
  };
  const time = run ? run.atS : previewS;
  const liveHead = live && live.state !== 'away' ? fromMachine(machine, live.x, live.y) : null;
  const head = run || previewS === null ? liveHead : plan && headAt(plan, previewS);
  const place = head && toScreen(view, head.x, head.y);
  const hot = previewS !== null || (live?.power ?? 0) > 0;
  if (!place && !drawnOver && !(plan && time !== null)) return null;
  return (
    <Layer listening={false}>
      {plan && time !== null && (
        <Shape
          sceneFunc={(context) => {
            const ratio = window.devicePixelRatio || 1;
            const [stock, unlit] = painter.paint(plan, time, sharesOf, view, { ...size, ratio });
            const shown = showsUnlit ? [stock, unlit] : [stock];
            for (const canvas of shown) context._context.drawImage(canvas, 0, 0, size.width, size.height);
          }}
        />
      )}
      {drawnOver && <Shape sceneFunc={(context) => drawnOver(context._context, view)} />}
      {place && (
        <Group x={place.x} y={place.y}>
          <Line points={[-14, 0, 14, 0]} stroke="#22302F" strokeWidth={1} opacity={0.7} />
          <Line points={[0, -14, 0, 14]} stroke="#22302F" strokeWidth={1} opacity={0.7} />
          <Circle radius={5} fill={hot ? '#F0A93B' : '#FFFFFF'} stroke="#22302F" strokeWidth={1.5} />
        </Group>
      )}
    </Layer>
  );
}
