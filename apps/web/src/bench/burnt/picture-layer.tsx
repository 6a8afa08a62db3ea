import type { RunAnswer } from '@lambent/contracts';
import type { ReactNode } from 'react';
import { Layer, Shape } from '../bed/konva.ts';
import { useBench } from '../context.ts';
import { useRuns } from '../use-runs.ts';
import { drawBurnt, useBurntPicture } from './burnt-picture.ts';
import { moveOfLine, strokeWays } from './draw-ways.ts';
import { useProgramWays } from './program-ways.ts';

/** How a run came out, where that is looked at; of a machine that takes no pictures, what its program burnt. */
export function PictureLayer() {
  const pictured = useBench((state) => state.pictured);
  const run = useRuns().runs.find(({ id }) => id === pictured);
  if (!run) return null;
  return run.hasPicture ? <Seen run={run} /> : <ByProgram run={run} />;
}

function Seen({ run }: { run: RunAnswer }) {
  const shown = useBurntPicture(run.id);
  const { scale } = useBench((state) => state.view);
  return shown ? <OnBed draw={(context) => drawBurnt(context, shown, scale)} /> : null;
}

const burntInk = '#5A3A1E';
const leftInk = '#A9A595';

function ByProgram({ run }: { run: RunAnswer }) {
  const { data: ways } = useProgramWays(run);
  const view = useBench((state) => state.view);
  if (!ways) return null;
  const count = ways.xs.length;
  const until = run.status === 'done' ? count : moveOfLine(ways, run.doneLine + 1);
  return (
    <OnBed
      draw={(context) => {
        context.scale(view.scale, view.scale);
        context.lineCap = 'round';
        strokeWays(context, view, ways, [until, count], leftInk, 1.25);
        strokeWays(context, view, ways, [0, until], burntInk, 2);
      }}
    />
  );
}

/** Something drawn on the bed, whose corner is the context's origin. */
function OnBed({ draw }: { draw: (context: CanvasRenderingContext2D) => void }): ReactNode {
  const view = useBench((state) => state.view);
  return (
    <Layer listening={false}>
      <Shape
        sceneFunc={(context) => {
          const target = context._context;
          target.save();
          target.translate(view.x, view.y);
          draw(target);
          target.restore();
        }}
      />
    </Layer>
  );
}
