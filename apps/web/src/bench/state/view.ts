import type { JobDocument } from '@lambent/core/document';
import type { Point } from '@lambent/core/geometry';
import type { Machine } from '@lambent/core/machine';
import type { Look } from '../bed/look.ts';
import type { View } from '../bed/view.ts';
import type { Change } from './slice.ts';

/** A machine that a job was made for before, and what was typed by hand for it. */
export interface MovedFrom {
  readonly machine: Machine;
  readonly settings: JobDocument['settings'];
}

/** What of the bed is seen, and how. */
export interface ViewState {
  view: View;
  /** In pixels; 0 before the bed is shown. */
  viewSize: { readonly width: number; readonly height: number };
  /** Where on the bed the pointer is, in mm; null while it is elsewhere. */
  pointer: Point | null;
  look: Look;
  /** The run whose picture lies on the bed; null while none does. */
  pictured: string | null;
  /** Where the job comes from that was just moved to another machine; null when that was looked at. */
  movedFrom: MovedFrom | null;
}

export const firstView: ViewState = {
  view: { scale: 1, x: 0, y: 0 },
  viewSize: { width: 0, height: 0 },
  pointer: null,
  look: 'operations',
  pictured: null,
  movedFrom: null,
};

/** What changes the slice of the view. */
export function viewActions(change: Change<ViewState>) {
  return {
    showView: (view: View) => change({ view }),
    resizeView: (viewSize: ViewState['viewSize']) => change({ viewSize }),
    movePointer: (pointer: Point | null) => change({ pointer }),
    chooseLook: (look: Look) => change({ look }),
    sayMoved: (movedFrom: MovedFrom | null) => change({ movedFrom }),
    showPictureOf: (runId: string | null) => change({ pictured: runId }),
  };
}
