/** A file that cannot be used. Its message is one plain sentence for the operator: what is wrong and what to do. */
export class FileRefused extends Error {
  override readonly name = 'FileRefused';
}

/** Something in a file that was taken otherwise than it was meant, or left out. */
export interface ReadingWarning {
  readonly code: string;
  readonly message: string;
  /** How many times. */
  readonly count: number;
}
