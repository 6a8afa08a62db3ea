import { type FocusEvent, type KeyboardEvent, type ReactNode, useLayoutEffect, useRef } from 'react';

interface Props {
  readonly label: string;
  readonly id?: string;
  readonly children: ReactNode;
}

/** Buttons in a row that are one stop of the Tab key: arrows go from one to the next, Home and End to the ends. */
export function Toolbar({ label, id, children }: Props) {
  const bar = useRef<HTMLDivElement>(null);
  const last = useRef<HTMLElement | null>(null);
  const buttons = () => [...(bar.current?.querySelectorAll<HTMLButtonElement>('button:not(:disabled)') ?? [])];
  /** Only the one that had the focus last is a stop, or the first. */
  const settle = () => {
    const all = buttons();
    const stop = all.find((button) => button === last.current) ?? all[0];
    for (const button of all) button.tabIndex = button === stop ? 0 : -1;
  };
  useLayoutEffect(settle);
  const onKeyDown = (event: KeyboardEvent) => {
    const all = buttons();
    const focused = all.indexOf(event.target as HTMLButtonElement);
    if (focused < 0) return;
    const to = { ArrowRight: focused + 1, ArrowLeft: focused - 1, Home: 0, End: all.length - 1 }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    all[(to + all.length) % all.length].focus();
  };
  const onFocus = ({ target }: FocusEvent<HTMLElement>) => {
    if (!buttons().includes(target as HTMLButtonElement)) return;
    last.current = target;
    settle();
  };
  return (
    <div
      ref={bar}
      id={id}
      role="toolbar"
      aria-label={label}
      onKeyDown={onKeyDown}
      onFocus={onFocus}
      className="flex max-w-full items-center gap-0.5 overflow-x-auto rounded-xl border border-line bg-paper p-1 shadow-float"
    >
      {children}
    </div>
  );
}
