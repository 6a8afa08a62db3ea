import type { ReactNode } from 'react';

/** A choice with its label over it, as fields of figures have theirs. */
export function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <span className="text-quiet">{label}</span>
      {children}
    </div>
  );
}
