import type { ComponentType } from 'react';
import type { RouteObject } from 'react-router';
import { DropPlace } from '../dropped/drop-place.tsx';
import { t } from '../words/words.ts';
import { loadBench } from './load-bench.ts';
import { LostRoute } from './lost.tsx';

/** Every place but the Bench, by its address, and how it is loaded. */
const small: Readonly<Record<string, () => Promise<ComponentType>>> = {
  '/': async () => (await import('./desk.tsx')).DeskRoute,
  '/machines': async () => (await import('./machines.tsx')).MachinesRoute,
  '/machines/:machineId': async () => (await import('./machine.tsx')).MachineRoute,
  '/record': async () => (await import('./record.tsx')).RecordRoute,
  '/figures': async () => (await import('./figures.tsx')).FiguresRoute,
  '/shop': async () => (await import('./shop.tsx')).ShopRoute,
  '/book/:materialId?': async () => (await import('./book.tsx')).BookRoute,
  '/guide/:page?': async () => (await import('./guide.tsx')).GuideRoute,
  '/keys/:keyId?': async () => (await import('./keys.tsx')).KeysRoute,
};

/** The places of those who do not work here. */
const open: typeof small = {
  '/join/:token': async () => (await import('./join.tsx')).JoinRoute,
  '/how-to-draw': async () => (await import('./how-to-draw.tsx')).HowToDrawRoute,
  '/drop-off/:token?': async () => (await import('./drop-off.tsx')).DropOffRoute,
};

/** The places as the router takes them. Each is loaded when it is opened; those of the shop take files that are dropped on them. */
export const places: RouteObject[] = [
  {
    element: <DropPlace />,
    children: [...routesOf({ ...small, '/jobs/:jobId/:stage?': loadBench }), { path: '*', element: <LostRoute /> }],
  },
  ...routesOf(open),
];

function routesOf(each: typeof small): RouteObject[] {
  return Object.entries(each).map(([path, load]) => ({
    path,
    lazy: async () => ({ Component: await load() }),
    errorElement: <LostRoute />,
    HydrateFallback: Opening,
  }));
}

function Opening() {
  return (
    <p className="flex h-full items-center justify-center text-quiet" role="status">
      {t('Opening…')}
    </p>
  );
}

/** Loads the small places once there is nothing else to do: one can walk there while the server is away. */
export function loadSmallPlaces(): void {
  const load = () => {
    for (const place of Object.values(small)) place().catch(() => {});
  };
  // Not every browser has it.
  if ('requestIdleCallback' in window) window.requestIdleCallback(load);
  else setTimeout(load, 1000);
}
