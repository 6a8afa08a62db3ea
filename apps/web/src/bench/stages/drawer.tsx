import { ChevronDown, ChevronRight } from 'lucide-react';
import { type ReactNode, useState } from 'react';

/** What the open stage needs, in the order it is decided. */
export function Drawer({
  title,
  aside,
  children,
  foot,
}: {
  title: string;
  aside?: ReactNode;
  children: ReactNode;
  foot?: ReactNode;
}) {
  return (
    <section
      id="drawer"
      aria-label={title}
      className="flex h-full w-[296px] shrink-0 flex-col border-r border-line bg-paper"
    >
      <div className="flex items-baseline justify-between px-3.5 pb-2 pt-3.5">
        <h1 className="text-[16px] font-bold">{title}</h1>
        {aside && <span className="text-quiet">{aside}</span>}
      </div>
      <div data-scrolls className="relative flex min-h-0 flex-1 flex-col gap-3.5 overflow-y-auto px-3.5 pb-4">
        {children}
      </div>
      {foot && <div className="border-t border-line px-3.5 py-3">{foot}</div>}
    </section>
  );
}

interface PartProps {
  title: string;
  children: ReactNode;
  folds?: boolean;
  /** Folded until it is opened for the first time. */
  shut?: boolean;
}

/** A titled part of a drawer; one that folds remembers whether it is open. */
export function Part({ title, children, folds = false, shut = false }: PartProps) {
  const [open, setOpen] = useState(() => (localStorage.getItem(`folded ${title}`) ?? (shut ? 'yes' : 'no')) === 'no');
  if (!folds) {
    return (
      <div className="flex flex-col gap-1.5">
        <h2 className="text-quiet">{title}</h2>
        {children}
      </div>
    );
  }
  const toggle = () => {
    setOpen(!open);
    localStorage.setItem(`folded ${title}`, open ? 'yes' : 'no');
  };
  return (
    <div className="flex flex-col gap-1.5">
      <h2>
        <button
          type="button"
          aria-expanded={open}
          onClick={toggle}
          className="-ml-1 flex w-full items-center gap-1 text-left text-quiet hover:text-ink"
        >
          {open ? <ChevronDown size={14} aria-hidden /> : <ChevronRight size={14} aria-hidden />}
          {title}
        </button>
      </h2>
      {open && children}
    </div>
  );
}
