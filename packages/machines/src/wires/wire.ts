/** What comes of a connection. */
export interface WireEnds {
  opened(): void;
  received(bytes: Uint8Array): void;
  /** It could not be opened, or has ended; said once. @param why in words, where there is more to say */
  closed(why: string | null): void;
}

/** A connection to a machine: bytes go both ways. */
export interface Wire {
  /** Nothing where it is not open. */
  write(bytes: Uint8Array): void;
  close(): void;
}

/** Begins a connection. */
export type Connect = (ends: WireEnds) => Wire;
