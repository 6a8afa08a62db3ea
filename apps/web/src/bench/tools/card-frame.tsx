import type { ReactNode } from 'react';
import { useBench, useBenchActions } from '../context.ts';
import type { ToolOptions } from './tool-options.ts';

/** The small card of a tool that floats over the bed. */
export function Card({ label, children }: { label: string; children: ReactNode }) {
  return (
    <section
      aria-label={label}
      className="flex items-center gap-2.5 rounded-xl border border-line bg-paper px-3 py-1.5 shadow-float"
    >
      {children}
    </section>
  );
}

/** The options of the tools, and what changes some of them. */
export function useOptions(): [ToolOptions, (change: Partial<ToolOptions>) => void] {
  const actions = useBenchActions();
  const options = useBench((state) => state.toolOptions);
  return [options, actions.setToolOptions];
}
