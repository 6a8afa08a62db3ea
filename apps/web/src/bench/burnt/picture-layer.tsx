import { Layer, Shape } from '../bed/konva.ts';
import { useBench } from '../context.ts';
import { drawBurnt, useBurntPicture } from './burnt-picture.ts';

/** How a run came out, where that is looked at. */
export function PictureLayer() {
  const runId = useBench((state) => state.pictured);
  const view = useBench((state) => state.view);
  const shown = useBurntPicture(runId);
  if (!shown) return null;
  return (
    <Layer listening={false}>
      <Shape
        sceneFunc={(context) => {
          const target = context._context;
          target.save();
          target.translate(view.x, view.y);
          drawBurnt(target, shown, view.scale);
          target.restore();
        }}
      />
    </Layer>
  );
}
