/** A backup cannot be made or restored; the message is a sentence that says why, and what to do. */
export class BackupRefused extends Error {
  override readonly name = 'BackupRefused';
}
