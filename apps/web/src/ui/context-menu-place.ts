import type { LucideIcon } from 'lucide-react';
import type { MouseEvent } from 'react';
import { create } from 'zustand';

/** One line of a context menu. */
export interface MenuEntry {
  readonly text: string;
  readonly run: () => void;
  readonly icon?: LucideIcon;
  /** The keys that do the same. */
  readonly keys?: string;
  readonly disabled?: boolean;
  readonly isDangerous?: boolean;
}

/** Lines that belong together; a rule stands between the parts. */
export type MenuPart = readonly MenuEntry[];

interface Open {
  readonly x: number;
  readonly y: number;
  readonly title: string;
  readonly parts: readonly MenuPart[];
  /** What had the keys before, and gets them back. */
  readonly before: Element | null;
}

/** The context menu that is open; null while none is. */
export const useContextMenu = create<{ open: Open | null }>(() => ({ open: null }));

/**
 * Opens a context menu at a point of the page.
 * @param title what it is of, for who cannot see where it stands
 */
export function openContextMenu(x: number, y: number, title: string, parts: readonly MenuPart[]): void {
  const shown = parts.filter((part) => part.length > 0);
  if (shown.length === 0) return;
  useContextMenu.setState({ open: { x, y, title, parts: shown, before: document.activeElement } });
}

/** Where on the page a context menu is asked for: at the pointer; by the key, below what has the focus. */
export function menuPlace({ clientX, clientY, button, currentTarget }: MouseEvent): { x: number; y: number } {
  const isByKey = button !== 2 && clientX === 0 && clientY === 0;
  if (!isByKey) return { x: clientX, y: clientY };
  const { left, bottom } = currentTarget.getBoundingClientRect();
  return { x: left, y: bottom };
}
