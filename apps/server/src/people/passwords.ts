import { hash, verify } from '@node-rs/argon2';

/** As OWASP’s “Password Storage Cheat Sheet” has it for argon2id, which is 2 here: 19 MiB, two passes, one lane. */
const settings = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** What of a password is kept. */
export function hashOfPassword(password: string): Promise<string> {
  return hash(password.normalize('NFC'), settings);
}

/** What is kept of people of the demo, who have none. */
export const noPassword = '';

/** Of a password that nobody has. */
let nobodys: Promise<string> | null = null;

/** Whether a password is the one that was kept; as long as that takes, too, where none was. */
export async function isPassword(kept: string | null, password: string): Promise<boolean> {
  nobodys ??= hashOfPassword('nobody has this one');
  const isRight = await verify(kept ?? (await nobodys), password.normalize('NFC'));
  return isRight && kept !== null;
}
