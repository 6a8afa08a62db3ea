import { boundsAmong, itemsAmong } from '@lambent/core/document';
import { transformItems } from '@lambent/core/edits';
import { identity, isEmpty, type Matrix } from '@lambent/core/geometry';
import type Konva from 'konva';
import { useEffect, useMemo, useRef } from 'react';
import { useBench, useBenchActions } from '../context.ts';
import { jobOf } from '../state/document.ts';
import { Rect, Transformer } from './konva.ts';
import { screenMapToBed, toScreen } from './view.ts';

/** The frame around the selection, with handles to scale and turn it. */
export function SelectionHandles() {
  const actions = useBenchActions();
  const view = useBench((state) => state.view);
  const selection = useBench((state) => state.selection);
  const drawing = useBench((state) => jobOf(state).drawing);
  const live = useBench((state) => state.live);
  const proxy = useRef<Konva.Rect>(null);
  const handles = useRef<Konva.Transformer>(null);
  const transforming = useRef(false);
  const bounds = useMemo(() => boundsAmong(drawing, selection), [drawing, selection]);
  const isLocked = useMemo(() => itemsAmong(drawing, selection).some((item) => item.locked), [drawing, selection]);
  const isFinger = useBench((state) => state.isFinger);
  const empty = isEmpty(bounds);

  // biome-ignore lint/correctness/useExhaustiveDependencies: the handles follow whatever moves the frame
  useEffect(() => {
    if (proxy.current && handles.current) handles.current.nodes(empty ? [] : [proxy.current]);
    handles.current?.forceUpdate();
  }, [empty, bounds, view, live]);

  if (empty) return null;
  const dragged = live !== null && !transforming.current ? live : null;
  const place = toScreen(view, bounds.minX + (dragged?.[4] ?? 0), bounds.minY + (dragged?.[5] ?? 0));
  const width = Math.max(0.01, (bounds.maxX - bounds.minX) * view.scale);
  const height = Math.max(0.01, (bounds.maxY - bounds.minY) * view.scale);

  const mapNow = (): Matrix | null => {
    const node = proxy.current;
    if (!node) return null;
    const [a, b, c, d, e, f] = node.getAbsoluteTransform().getMatrix();
    const { x, y } = place;
    const map: Matrix = [a, b, c, d, e - a * x - c * y, f - b * x - d * y];
    return screenMapToBed(view, map);
  };
  return (
    <>
      <Rect ref={proxy} x={place.x} y={place.y} width={width} height={height} listening={false} />
      <Transformer
        ref={handles}
        flipEnabled={false}
        rotationSnaps={[0, 90, 180, 270]}
        rotationSnapTolerance={3}
        rotateAnchorOffset={isFinger ? 34 : 22}
        resizeEnabled={!isLocked}
        rotateEnabled={!isLocked}
        anchorSize={isFinger ? 12 : 8}
        anchorStyleFunc={(anchor) => anchor.hitStrokeWidth(isFinger ? 20 : 'auto')}
        anchorCornerRadius={1}
        anchorStroke="#0E6570"
        anchorFill="#FFFFFF"
        borderStroke="#0E6570"
        borderDash={[4, 3]}
        ignoreStroke
        boundBoxFunc={(before, after) => (Math.abs(after.width) < 2 || Math.abs(after.height) < 2 ? before : after)}
        onTransformStart={() => {
          transforming.current = true;
        }}
        onTransform={() => actions.showLive(mapNow())}
        onTransformEnd={(event) => {
          const node = event.target;
          const map = mapNow();
          const turned = Math.abs(node.rotation()) > 1e-9;
          node.setAttrs({ x: place.x, y: place.y, scaleX: 1, scaleY: 1, rotation: 0 });
          transforming.current = false;
          actions.showLive(null);
          const ids = actions.get().selection;
          if (map && !standsStill(map))
            actions.edit(turned ? 'turn' : 'scale', (job) => transformItems(job, ids, cleaned(map, turned)));
        }}
      />
    </>
  );
}

/** A handle that was clicked but not dragged changes nothing. */
function standsStill(map: Matrix): boolean {
  return map.every((value, i) => Math.abs(value - identity[i]) < 1e-9);
}

/** Without the rounding that pixels left in it: a scaling has no skew. */
function cleaned(map: Matrix, turned: boolean): Matrix {
  return turned ? map : [map[0], 0, 0, map[3], map[4], map[5]];
}
