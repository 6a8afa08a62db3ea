import type { ReactNode } from 'react';

interface Props {
  checked: boolean;
  set: (checked: boolean) => void;
  disabled?: boolean;
  title?: string;
  children: ReactNode;
}

/** A box to tick, its words beside it. */
export function Tick({ checked, set, disabled, title, children }: Props) {
  return (
    <label className="flex items-center gap-1.5" title={title}>
      <input type="checkbox" checked={checked} disabled={disabled} onChange={(event) => set(event.target.checked)} />
      {children}
    </label>
  );
}
