import type { Box, Point } from '@lambent/core/geometry';
import type Konva from 'konva';
import { startTransition, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { ArrivingLayer } from '../arriving/arriving-layer.tsx';
import { PictureLayer } from '../burnt/picture-layer.tsx';
import { useBench, useBenchActions } from '../context.ts';
import { leftView } from '../left/left-place.ts';
import { openBedMenu } from '../menus/open-bed-menu.ts';
import { jobOf, machineOf, unitOf } from '../state/document.ts';
import { isPlanned, planOf } from '../state/plan.ts';
import { chooseTool } from '../tools/choose.ts';
import { ArtworkLayer } from './artwork-layer.tsx';
import { BedPointers, type PointerInput } from './bed-pointers.ts';
import { drawBed, type Tones } from './draw-bed.ts';
import { drawGaps } from './draw-gaps.ts';
import { HeadLayer } from './head-layer.tsx';
import { Group, Layer, Rect, Shape, Stage } from './konva.ts';
import { LayoutMarks } from './layout-marks.tsx';
import { OpenGroupFrame } from './open-group-frame.tsx';
import { Rulers } from './rulers.tsx';
import { SelectionHandles } from './selection-handles.tsx';
import { ToolMarks } from './tool-marks.tsx';
import { useGuidePull } from './use-guide-pull.ts';
import { useHeldKey } from './use-held-key.ts';
import type { View, ViewFrame } from './view.ts';
import { isSameView, ruler, toBed, toScreen, viewOf, zoomAt } from './view.ts';

/** The bed with everything on it, and the pointer's work there. */
export function BedView({ asBurnt }: { asBurnt: boolean }) {
  const actions = useBenchActions();
  const holder = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  // First the bed and the artwork, then, in a task of its own, what lies over them.
  const [isBedShown, setBedShown] = useState(false);
  const view = useBench((state) => state.view);
  const machine = useBench(machineOf);
  const unit = useBench(unitOf);
  const sheets = useBench((state) => (asBurnt ? state.prepared.sheets : jobOf(state).sheets));
  const materials = useBench((state) => state.shop.materials);
  const frame = useBench((state) => state.frame);
  const toolName = useBench((state) => state.tool?.name);
  const takesHold = useBench((state) => state.takesHold);
  const space = useHeldKey(' ');
  const tones = useTones();
  const pull = useGuidePull();

  useEffect(() => {
    if (!actions.get().tool) chooseTool(actions, 'pick');
  }, [actions]);

  useLayoutEffect(() => {
    const element = holder.current;
    if (!element) return;
    const observer = new ResizeObserver(() => {
      const next = frameOf(element);
      const { width, height } = next;
      const { viewSize: before, jobId, view } = actions.get();
      const take = () => setSize({ width, height });
      // The canvases are made after the page was laid out, in a task of their own.
      if (before.width === 0) startTransition(take);
      else take();
      const whole = ({ width, height }: Pick<ViewFrame, 'width' | 'height'>) => viewOf(bedOf(actions), width, height);
      const isResized = before.windowWidth !== next.windowWidth || before.windowHeight !== next.windowHeight;
      actions.resizeView(next);
      if (before.width === 0) actions.showView(leftView(jobId, next) ?? whole(next));
      // In a window of another size the whole bed is shown where it was.
      else if (isResized && isSameView(view, whole(before))) actions.showView(whole(next));
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [actions]);

  const isMeasured = size.width > 0;
  useEffect(() => {
    if (isMeasured) startTransition(() => setBedShown(true));
  }, [isMeasured]);

  const isSpaceHeld = useRef(space);
  isSpaceHeld.current = space;
  const pointers = useMemo(
    () =>
      new BedPointers(actions, {
        movesView: () => isSpaceHeld.current,
        press: (screen) => markPlace(actions, screen),
        held: (screen) => openBedMenu(actions, screen),
      }),
    [actions],
  );
  const onHandle = (event: Konva.KonvaEventObject<PointerEvent>) =>
    event.target.getParent()?.className === 'Transformer';

  return (
    <div
      ref={holder}
      className={`relative h-full overflow-hidden outline-none ${space ? 'cursor-grab' : takesHold ? 'cursor-move' : toolName === 'pick' || toolName === 'points' ? '' : 'cursor-crosshair'}`}
      style={{ background: 'var(--bed-around)', touchAction: 'none' }}
      data-testid="bed"
      id="bed"
      tabIndex={-1}
    >
      <Rulers machine={machine} unit={unit} view={view} width={size.width} height={size.height} pull={pull} />
      {isMeasured && (
        <Stage
          width={size.width}
          height={size.height}
          style={{ position: 'absolute', left: ruler, top: ruler }}
          onPointerDown={(event) => {
            if (onHandle(event)) return;
            (event.evt.target as Element).setPointerCapture?.(event.evt.pointerId);
            pointers.down(inputOf(event));
          }}
          onPointerMove={(event) => pointers.move(inputOf(event))}
          onPointerUp={(event) => pointers.up(inputOf(event))}
          onPointerCancel={(event) => pointers.cancel(event.evt.pointerId)}
          onPointerLeave={() => pointers.leave()}
          onContextMenu={(event) => {
            event.evt.preventDefault();
            // A finger that is held has opened it already.
            if (event.evt.pointerType !== 'touch') openBedMenu(actions, placeOf(event));
          }}
          onWheel={(event) => {
            event.evt.preventDefault();
            const place = event.target.getStage()?.getPointerPosition();
            if (place)
              actions.showView(zoomAt(actions.get().view, place.x, place.y, Math.exp(-event.evt.deltaY * 0.0016)));
          }}
        >
          <Layer listening={false}>
            <Shape sceneFunc={(context) => drawBed(context._context, view, machine, sheets, materials, tones)} />
          </Layer>
          <ArtworkLayer size={size} ink={tones.ink} asBurnt={asBurnt} />
          {isBedShown && (
            <>
              <GapsLayer bed={tones.bed} asBurnt={asBurnt} />
              <PictureLayer />
              <ArrivingLayer size={size} ink={tones.ink} />
              <Layer>
                {toolName === 'pick' && <SelectionHandles />}
                {frame && <FrameRect frame={frame} view={view} />}
                <Group listening={false}>
                  <OpenGroupFrame />
                  <LayoutMarks />
                  <ToolMarks />
                </Group>
              </Layer>
              <HeadLayer size={size} />
            </>
          )}
        </Stage>
      )}
    </div>
  );
}

/** Where on the page the view is that an element holds beside its rulers. */
function frameOf(holder: HTMLElement): ViewFrame {
  const { left, top, width, height } = holder.getBoundingClientRect();
  return {
    left,
    top,
    width: Math.max(1, Math.floor(width - ruler)),
    height: Math.max(1, Math.floor(height - ruler)),
    windowWidth: window.innerWidth,
    windowHeight: window.innerHeight,
  };
}

/** Where the pointer is, in pixels of the view. */
function placeOf({ target }: Pick<Konva.KonvaEventObject<unknown>, 'target'>): Point {
  return target.getStage()?.getPointerPosition() ?? { x: 0, y: 0 };
}

function inputOf({ evt, target }: Konva.KonvaEventObject<PointerEvent>): PointerInput {
  const { pointerId, pointerType, button, shiftKey, ctrlKey, metaKey, altKey, timeStamp } = evt;
  return {
    id: pointerId,
    kind: pointerType === 'touch' || pointerType === 'pen' ? pointerType : 'mouse',
    screen: placeOf({ target }),
    button,
    shift: shiftKey,
    ctrl: ctrlKey || metaKey,
    alt: altKey,
    madeAt: timeStamp,
  };
}

/** While a file that arrives is placed at a point, a click marks that. @returns whether it did */
function markPlace(actions: ReturnType<typeof useBenchActions>, screen: Point): boolean {
  const { incoming, view } = actions.get();
  if (incoming.arriving?.place !== 'point') return false;
  actions.adjustArriving({ point: toBed(view, screen.x, screen.y) });
  return true;
}

function bedOf(actions: ReturnType<typeof useBenchActions>): Box {
  const { bedWidth, bedHeight } = machineOf(actions.get());
  return { minX: 0, minY: 0, maxX: bedWidth, maxY: bedHeight };
}

/** What cutting takes from the sheet, by the plan; while that is worked out anew, not at all. */
function GapsLayer({ bed, asBurnt }: { bed: string; asBurnt: boolean }) {
  const shown = useBench(({ look, prepared: { run } }) => {
    const inPlace = asBurnt || (!run.mirrored && run.landing.kind === 'as-drawn');
    return look === 'burnt' && inPlace;
  });
  const view = useBench((state) => state.view);
  const prepared = useBench((state) => state.prepared);
  const plan = useBench((state) => (isPlanned(state) ? planOf(state) : null));
  if (!plan || !shown) return null;
  return (
    <Layer listening={false}>
      <Shape sceneFunc={(context) => drawGaps(context._context, view, prepared, plan, bed)} />
    </Layer>
  );
}

function FrameRect({ frame, view }: { frame: Box; view: View }) {
  const from = toScreen(view, frame.minX, frame.minY);
  return (
    <Rect
      {...from}
      width={(frame.maxX - frame.minX) * view.scale}
      height={(frame.maxY - frame.minY) * view.scale}
      fill="rgb(14 101 112 / 0.10)"
      stroke="#0E6570"
      dash={[4, 3]}
      listening={false}
    />
  );
}

function useTones(): Tones {
  const dark = useDark();
  return dark
    ? { bed: '#1F2829', comb: '#2C3838', edge: '#6F7B78', ink: '#ECE9E0' }
    : { bed: '#E7E2D6', comb: '#D3CDBE', edge: '#8D897C', ink: '#1E2A2E' };
}

function useDark(): boolean {
  const query = useMemo(() => window.matchMedia('(prefers-color-scheme: dark)'), []);
  const [dark, setDark] = useState(query.matches);
  useEffect(() => {
    const listen = () => setDark(query.matches);
    query.addEventListener('change', listen);
    return () => query.removeEventListener('change', listen);
  }, [query]);
  return dark;
}
