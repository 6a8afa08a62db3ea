import { bendingPanel } from './bending-panel/bending-panel.ts';
import type { Builder } from './builder.ts';
import { foldedBox } from './folded-box/folded-box.ts';
import { joinedBox } from './joined-box/joined-box.ts';
import { layeredBase } from './layered-base/layered-base.ts';
import { edgeJoint } from './own-outlines/edge-joint.ts';
import { slottedFigure } from './own-outlines/slotted-figure.ts';
import { slottedGrid } from './slotted-grid.ts';

/** All there are; a new one is a line here. */
export const builders: readonly Builder[] = [
  joinedBox,
  foldedBox,
  slottedGrid,
  layeredBase,
  bendingPanel,
  edgeJoint,
  slottedFigure,
].map((builder) => builder as unknown as Builder);
