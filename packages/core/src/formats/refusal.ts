/** A file that cannot be used. Its message is one plain sentence for the operator: what is wrong and what to do. */
export class FileRefused extends Error {
  override readonly name = 'FileRefused';
}

/** Files larger than this are refused, in bytes. */
export const largestFile = 40 * 1024 * 1024;

/** @throws FileRefused when a file is larger than is taken */
export function refuseTooLarge(bytes: number): void {
  if (bytes <= largestFile) return;
  const mb = (size: number) => Math.round(size / 1024 / 1024);
  throw new FileRefused(
    `The file is ${mb(bytes)} MB; Lambent takes files up to ${mb(largestFile)} MB. Leave pictures out, or split it.`,
  );
}
