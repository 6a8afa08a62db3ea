import { boundsOfAll, groupsAround } from '@lambent/core/document';
import { growBox, isEmpty } from '@lambent/core/geometry';
import { useMemo } from 'react';
import { useBench } from '../context.ts';
import { jobOf } from '../state/document.ts';
import { Rect } from './konva.ts';
import { toScreen } from './view.ts';

const roomPx = 10;

/** The frame around the group that is open. */
export function OpenGroupFrame() {
  const view = useBench((state) => state.view);
  const drawing = useBench((state) => jobOf(state).drawing);
  const openGroup = useBench((state) => state.openGroup);
  const bounds = useMemo(() => {
    const isInside = ({ id }: { readonly id: string }) => id === openGroup;
    return openGroup === null
      ? null
      : boundsOfAll(drawing.items.filter((item) => groupsAround(drawing, item).some(isInside)));
  }, [drawing, openGroup]);
  if (!bounds || isEmpty(bounds)) return null;
  const { minX, minY, maxX, maxY } = growBox(bounds, roomPx / view.scale);
  return (
    <Rect
      {...toScreen(view, minX, minY)}
      width={(maxX - minX) * view.scale}
      height={(maxY - minY) * view.scale}
      stroke="#0E6570"
      strokeWidth={1.5}
      dash={[2, 5]}
      cornerRadius={4}
      listening={false}
    />
  );
}
