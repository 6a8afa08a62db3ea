import { type ComponentType, lazy, type ReactNode, Suspense } from 'react';

/** The load of everything that comes later. */
const loads: (() => Promise<unknown>)[] = [];

/**
 * A drawer that is not fetched with the Bench, but right after it, or when it is opened first.
 * @param load imports its module, and picks it
 */
export function laterDrawer<Props extends object>(
  load: () => Promise<(props: Props) => ReactNode>,
): (props: Props) => ReactNode {
  return later(load, <section aria-busy className="h-full w-[296px] shrink-0 border-r border-line bg-paper" />);
}

/** The same of what takes the place of the bed. */
export function laterView<Props extends object>(
  load: () => Promise<(props: Props) => ReactNode>,
): (props: Props) => ReactNode {
  return later(load, <section aria-busy className="h-full bg-paper" />);
}

/** The same of what stands in or over something else: there is nothing to see until it comes. */
export function laterPart<Props extends object>(
  load: () => Promise<(props: Props) => ReactNode>,
): (props: Props) => ReactNode {
  return later(load, null);
}

function later<Props extends object>(
  load: () => Promise<(props: Props) => ReactNode>,
  meanwhile: ReactNode,
): (props: Props) => ReactNode {
  loads.push(load);
  const Loaded: ComponentType<Props> = lazy(async () => ({ default: await load() }));
  return function Later(props) {
    return (
      <Suspense fallback={meanwhile}>
        <Loaded {...props} />
      </Suspense>
    );
  };
}

/**
 * Fetches what comes later, one after the other, whenever the page has nothing better to do: all at once would keep it busy.
 *
 * @returns what calls that off
 */
export function fetchLaterDrawers(): () => void {
  const whenIdle = window.requestIdleCallback ?? ((run: () => void) => window.setTimeout(run, 1000));
  const cancel = window.cancelIdleCallback ?? window.clearTimeout;
  let isWanted = true;
  let id = 0;
  const fetchFrom = (index: number) => {
    if (!isWanted || index === loads.length) return;
    id = whenIdle(() => {
      const next = () => fetchFrom(index + 1);
      // One that cannot be fetched now is fetched again when it is opened.
      loads[index]().then(next, next);
    });
  };
  fetchFrom(0);
  return () => {
    isWanted = false;
    cancel(id);
  };
}
