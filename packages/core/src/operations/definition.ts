/** How an operation burns. */
export interface Burning {
  /** What the beam goes along: lines, or the inside of outlines, row by row. */
  readonly traces: 'lines' | 'areas';
  /** Whether it burns pictures too, with a power that follows their tones. */
  readonly followsTone?: boolean;
  /**
   * Whether it goes through the stock, so that pieces come off: what lies inside burns first, the width of the beam
   * counts, and outlines have to close.
   */
  readonly separates: boolean;
  /** Its place in the order of a burn: lower ones burn first. */
  readonly phase: number;
  /** What the machine does, behind its name: `cuts`. */
  readonly verb: string;
  /**
   * The energy that a test card starts from where the book knows nothing: J/mm of a line, J/mm² of an area; of what
   * goes through the stock for 1 mm of it.
   */
  readonly firstEnergy: number;
}

/**
 * All that sets an operation apart from others. What keys, plans, checks, recipes, test cards, the bed and files make
 * of it follows from these properties, not from its name.
 */
export interface OperationDefinition {
  readonly name: string;
  /** Several of its burns: `Cuts`. */
  readonly plural: string;
  /** The colour in which it is shown, and which the house key reads. */
  readonly colour: string;
  /** Its line on the bed and in lists: dashes and gaps in pixels; none for a solid line. */
  readonly dash: readonly number[];
  /** Stands beside its line, so that nobody has to go by colour. */
  readonly letter: string;
  /** Null for what is shown and never burnt. */
  readonly burning: Burning | null;
}
