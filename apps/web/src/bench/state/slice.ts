/** How a slice of the Bench's state changes its own fields; nothing else can. */
export type Change<Slice> = (fields: Partial<Slice>) => void;

/** How a slice reads its own fields, as they are now. */
export type Read<Slice> = () => Slice;
