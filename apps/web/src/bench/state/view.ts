import type { JobDocument } from '@lambent/core/document';
import type { Point } from '@lambent/core/geometry';
import type { Machine } from '@lambent/core/machine';
import type { Look } from '../bed/look.ts';
import { keptView, toBed, toScreen, type View, type ViewFrame } from '../bed/view.ts';
import type { Change, Read } from './slice.ts';

/** A machine that a job was made for before, and what was typed by hand for it. */
export interface MovedFrom {
  readonly machine: Machine;
  readonly settings: JobDocument['settings'];
}

/** What of the bed is seen, and how. */
export interface ViewState {
  view: View;
  /** Where on the page the view is, and how large; its width is 0 before the bed is shown. */
  viewSize: ViewFrame;
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
  viewSize: { left: 0, top: 0, width: 0, height: 0, windowWidth: 0, windowHeight: 0 },
  pointer: null,
  look: 'operations',
  pictured: null,
  movedFrom: null,
};

/** What changes the slice of the view. */
export function viewActions(get: Read<ViewState>, change: Change<ViewState>) {
  return {
    /** The pointer stays where it is on the screen: it is at another place of the bed then. */
    showView(view: View): void {
      const { view: before, pointer } = get();
      const screen = pointer && toScreen(before, pointer.x, pointer.y);
      change({ view, pointer: screen && toBed(view, screen.x, screen.y) });
    },
    /** The view has another place or size on the page: what it shows stays where it is on the screen. */
    resizeView(viewSize: ViewFrame): void {
      const { viewSize: before, view } = get();
      change({ viewSize, view: before.width > 0 ? keptView(view, before, viewSize) : view });
    },
    movePointer: (pointer: Point | null) => change({ pointer }),
    chooseLook: (look: Look) => change({ look }),
    sayMoved: (movedFrom: MovedFrom | null) => change({ movedFrom }),
    showPictureOf: (runId: string | null) => change({ pictured: runId }),
  };
}
