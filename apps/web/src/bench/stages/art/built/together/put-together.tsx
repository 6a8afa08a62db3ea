import type { Built } from '@lambent/core/builders';
import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import { t } from '../../../../../words/words.ts';
import { AssemblyScene, type Marks } from './assembly-scene.ts';

interface Props {
  built: Built;
  marks: Marks;
  /** The part that is pointed out, here or on the bed. */
  lit: string | null;
  light: (partId: string | null) => void;
}

/** By one arrow key, in radians. */
const keyTurn = Math.PI / 18;
/** By one pixel that it is dragged. */
const dragTurn = 0.01;

/** Parts that are put together, in three dimensions: turned by dragging or by arrow keys, shown closed or apart. */
export function PutTogether({ built, marks, lit, light }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const scene = useRef<AssemblyScene>(null);
  const dragged = useRef<{ x: number; y: number } | null>(null);
  const [isBlind, setBlind] = useState(false);
  const [apart, setApart] = useState(0);

  useEffect(() => {
    if (!canvas.current) return;
    try {
      scene.current = new AssemblyScene(canvas.current);
    } catch {
      setBlind(true);
      return;
    }
    return () => {
      scene.current?.dispose();
      scene.current = null;
    };
  }, []);
  useEffect(() => scene.current?.show(built.assembly.solids, marks), [built, marks]);
  useEffect(() => scene.current?.setApart(apart), [apart]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: parts that are shown anew are lit anew
  useEffect(() => scene.current?.light(lit), [lit, built, marks]);

  const onPointerMove = ({ nativeEvent: { offsetX, offsetY }, clientX, clientY }: PointerEvent) => {
    if (dragged.current) {
      scene.current?.turn(-(clientX - dragged.current.x) * dragTurn, (clientY - dragged.current.y) * dragTurn);
      dragged.current = { x: clientX, y: clientY };
      return;
    }
    light(scene.current?.partAt(offsetX, offsetY) ?? null);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const done = keys[event.key];
    if (!done || !scene.current) return;
    event.preventDefault();
    event.stopPropagation();
    done(scene.current);
  };
  if (isBlind) {
    return (
      <p className="py-2 text-quiet">
        {t('This browser shows no pictures in three dimensions. The parts are listed below.')}
      </p>
    );
  }
  const named = built.parts.find(({ id }) => id === lit);
  return (
    <>
      <canvas
        ref={canvas}
        tabIndex={0}
        role="img"
        aria-label={t(
          'Put together: {{parts}} parts. Arrow keys turn it, + and − change its size, Home shows it as at first.',
          { parts: built.parts.length },
        )}
        className="h-[220px] w-full cursor-grab touch-none rounded-lg bg-table outline-offset-2 focus-visible:outline-2 focus-visible:outline-petrol"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          dragged.current = { x: event.clientX, y: event.clientY };
        }}
        onPointerUp={() => {
          dragged.current = null;
        }}
        onPointerCancel={() => {
          dragged.current = null;
        }}
        onPointerMove={onPointerMove}
        onPointerLeave={() => light(null)}
        onWheel={(event) => scene.current?.zoom(Math.exp(-event.deltaY * 0.0016))}
        onKeyDown={onKeyDown}
      />
      <p className="mt-1 h-5 truncate text-center font-semibold" data-testid="lit-part">
        {named?.name}
      </p>
      <label className="flex items-center gap-2 text-[12px] text-quiet">
        {t('closed')}
        <input
          type="range"
          aria-label={t('From closed to apart')}
          min={0}
          max={1}
          step={0.05}
          value={apart}
          onChange={(event) => setApart(Number(event.target.value))}
          className="min-w-0 flex-1 accent-petrol"
        />
        {t('apart')}
      </label>
    </>
  );
}

const keys: Readonly<Record<string, (scene: AssemblyScene) => void>> = {
  ArrowLeft: (scene) => scene.turn(-keyTurn, 0),
  ArrowRight: (scene) => scene.turn(keyTurn, 0),
  ArrowUp: (scene) => scene.turn(0, keyTurn),
  ArrowDown: (scene) => scene.turn(0, -keyTurn),
  '+': (scene) => scene.zoom(1.2),
  '-': (scene) => scene.zoom(1 / 1.2),
  Home: (scene) => scene.reset(),
};
