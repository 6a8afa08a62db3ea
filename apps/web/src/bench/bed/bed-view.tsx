import type { Box, Point } from '@lambent/core/geometry';
import { fromMachine } from '@lambent/core/machine';
import type { PlanStep } from '@lambent/core/plan';
import { burnShares } from '@lambent/core/recipes';
import type Konva from 'konva';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useLive } from '../../stores/live.ts';
import { ArrivingLayer } from '../arriving/arriving-layer.tsx';
import { PictureLayer } from '../burnt/picture-layer.tsx';
import { useBench, useBenchActions } from '../context.ts';
import { jobOf, machineOf, unitOf } from '../state/document.ts';
import { isPlanned, planOf } from '../state/plan.ts';
import { chooseTool } from '../tools/choose.ts';
import { caught, rounded } from '../tools/snapping.ts';
import type { ToolPoint } from '../tools/tool.ts';
import { useShownRun } from '../use-shown-run.ts';
import { ArtworkLayer } from './artwork-layer.tsx';
import { drawBed, type Tones } from './draw-bed.ts';
import { BurnPainter, headAt } from './draw-burn.ts';
import { drawGaps } from './draw-gaps.ts';
import { Circle, Group, Layer, Line, Rect, Shape, Stage } from './konva.ts';
import { LayoutMarks } from './layout-marks.tsx';
import { Rulers } from './rulers.tsx';
import { SelectionHandles } from './selection-handles.tsx';
import { ToolMarks } from './tool-marks.tsx';
import { useGuidePull } from './use-guide-pull.ts';
import { useHeldKey } from './use-held-key.ts';
import type { View } from './view.ts';
import { ruler, toBed, toScreen, viewOf, zoomAt } from './view.ts';

interface Size {
  readonly width: number;
  readonly height: number;
}

/** The bed with everything on it, and the pointer's work there. */
export function BedView({ asBurnt }: { asBurnt: boolean }) {
  const actions = useBenchActions();
  const holder = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const view = useBench((state) => state.view);
  const machine = useBench(machineOf);
  const unit = useBench(unitOf);
  const sheets = useBench((state) => jobOf(state).sheets);
  const materials = useBench((state) => state.shop.materials);
  const frame = useBench((state) => state.frame);
  const toolName = useBench((state) => state.tool?.name);
  const panning = useRef<Point | null>(null);
  const presses = useRef({ count: 0, at: 0, x: 0, y: 0 });
  const space = useHeldKey(' ');
  const tones = useTones();
  const pull = useGuidePull();

  useEffect(() => {
    if (!actions.get().tool) chooseTool(actions, 'pick');
  }, [actions]);

  useLayoutEffect(() => {
    const element = holder.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      const next = {
        width: Math.max(1, Math.floor(entry.contentRect.width - ruler)),
        height: Math.max(1, Math.floor(entry.contentRect.height - ruler)),
      };
      setSize(next);
      const first = actions.get().viewSize.width === 0;
      actions.resizeView(next);
      if (first) actions.showView(viewOf(bedOf(actions), next.width, next.height));
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [actions]);

  const screenOf = (event: Konva.KonvaEventObject<PointerEvent>): Point =>
    event.target.getStage()?.getPointerPosition() ?? { x: 0, y: 0 };
  /** Where the tool's point is: caught by what is near, else rounded. */
  const pointOf = (event: Konva.KonvaEventObject<PointerEvent>): ToolPoint => {
    const screen = screenOf(event);
    const { view, tool } = actions.get();
    const free = toBed(view, screen.x, screen.y);
    const { button, shiftKey, ctrlKey, metaKey, altKey } = event.evt;
    const snap = tool && caught(actions, tool, free, altKey);
    if (tool?.name !== 'pick') actions.showCaught(snap);
    return {
      screen,
      free,
      bed: snap ?? rounded(free, view.scale),
      snap,
      button,
      shift: shiftKey,
      ctrl: ctrlKey || metaKey,
      alt: altKey,
      clicks: presses.current.count,
    };
  };
  /** Counts presses in quick succession at one place, by when they were made: a busy page hears of them later. */
  const countPress = ({ x, y }: Point, madeAt: number) => {
    const { count, at, x: lastX, y: lastY } = presses.current;
    const quick = madeAt - at < 400 && Math.hypot(x - lastX, y - lastY) < 5;
    presses.current = { count: quick ? count + 1 : 1, at: madeAt, x, y };
  };
  const onHandle = (event: Konva.KonvaEventObject<PointerEvent>) =>
    event.target.getParent()?.className === 'Transformer';

  return (
    <div
      ref={holder}
      className={`relative h-full overflow-hidden ${space ? 'cursor-grab' : toolName === 'pick' || toolName === 'points' ? '' : 'cursor-crosshair'}`}
      style={{ background: 'var(--bed-around)' }}
      data-testid="bed"
    >
      <Rulers machine={machine} unit={unit} view={view} width={size.width} height={size.height} pull={pull} />
      {size.width > 0 && (
        <Stage
          width={size.width}
          height={size.height}
          style={{ position: 'absolute', left: ruler, top: ruler }}
          onPointerDown={(event) => {
            if (onHandle(event)) return;
            (event.evt.target as Element).setPointerCapture?.(event.evt.pointerId);
            const screen = screenOf(event);
            if (event.evt.button === 1 || space) panning.current = screen;
            else if (event.evt.button === 0 && !markCorner(actions, screen)) {
              countPress(screen, event.evt.timeStamp);
              actions.get().tool?.down(pointOf(event));
            }
          }}
          onPointerMove={(event) => {
            const screen = screenOf(event);
            const { view } = actions.get();
            if (panning.current) {
              const { x, y } = panning.current;
              actions.showView({ ...view, x: view.x + screen.x - x, y: view.y + screen.y - y });
              panning.current = screen;
              return;
            }
            const point = pointOf(event);
            actions.get().tool?.move(point);
            actions.movePointer(point.snap ?? point.free);
          }}
          onPointerUp={(event) => {
            if (panning.current) panning.current = null;
            else actions.get().tool?.up(pointOf(event));
          }}
          onPointerLeave={() => {
            actions.movePointer(null);
            actions.showCaught(null);
            actions.hover([]);
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
          <GapsLayer bed={tones.bed} asBurnt={asBurnt} />
          <PictureLayer />
          <ArrivingLayer size={size} ink={tones.ink} />
          <Layer>
            {toolName === 'pick' && <SelectionHandles />}
            {frame && <FrameRect frame={frame} view={view} />}
          </Layer>
          <Layer listening={false}>
            <LayoutMarks />
            <ToolMarks />
          </Layer>
          <HeadLayer size={size} />
        </Stage>
      )}
    </div>
  );
}

/** While a file that arrives is placed by its corner, a click marks where that goes. @returns whether it did */
function markCorner(actions: ReturnType<typeof useBenchActions>, { x, y }: Point): boolean {
  const { incoming, view } = actions.get();
  if (incoming.arriving?.place !== 'corner') return false;
  actions.adjustArriving({ corner: { x: (x - view.x) / view.scale, y: (y - view.y) / view.scale } });
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
  return (
    <Layer listening={false}>
      {plan && shown && <Shape sceneFunc={(context) => drawGaps(context._context, view, prepared, plan, bed)} />}
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

/** What is burnt so far, and the head: in the preview, and while the machine runs. */
function HeadLayer({ size }: { size: Size }) {
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
