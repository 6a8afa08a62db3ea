import type { BuiltThing } from '@lambent/core/document';
import { create } from 'zustand';

/** What is built from numbers in the Art drawer: something new, or one that is there; null while nothing is. */
interface Use {
  readonly open: { readonly thing: BuiltThing | null } | null;
}

/** Whether parts from numbers are open. */
export const useBuiltUse = create<Use>(() => ({ open: null }));

/** Opens parts from numbers: for something new, or to change what is there. */
export function openBuilt(thing: BuiltThing | null): void {
  useBuiltUse.setState({ open: { thing } });
}

/** Leaves parts from numbers. */
export function leaveBuilt(): void {
  useBuiltUse.setState({ open: null });
}
