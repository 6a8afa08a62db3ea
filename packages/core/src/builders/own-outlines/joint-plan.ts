import type { Area } from '../../geometry/areas/area.ts';
import type { Path } from '../../geometry/paths/path.ts';
import type { Assembly } from '../assembly/assembly.ts';
import type { Place, StraightEdge } from './edges.ts';
import type { JointNumbers } from './joint-numbers.ts';
import type { Standing } from './placed.ts';

/** An outline and its edge that is joined. */
export interface JoinedPart {
  readonly name: string;
  readonly path: Path;
  readonly edge: StraightEdge;
  /** What the outline fills, in the frame of the edge. */
  readonly stock: Area;
  readonly standing: Standing;
}

/**
 * What a joint is planned from; lengths in mm. In space it lies along x with its middle at 0. The second part lies flat, its
 * inner face at z = 0, its edge at y = 0; the first stands on that face, or at the edge.
 */
export interface JointAsked {
  readonly numbers: JointNumbers;
  readonly t: number;
  readonly playMm: number;
  readonly first: JoinedPart;
  readonly second: JoinedPart;
}

/** What becomes of two outlines, and how that is held to the check. */
export interface JointPlan extends Omit<Assembly, 'solids'> {
  /** What there is instead of the edges, from their starts to their ends; null where the second stays. */
  readonly firstPlaces: readonly Place[];
  readonly secondPlaces: readonly Place[] | null;
  /** How much wider an opening is than what goes into it. */
  readonly playMm: number;
  /** Holes and slits in the second part, in its frame. */
  readonly holes: Path;
}
