import { largestSending } from '@lambent/contracts';
import { t } from '../words/words.ts';

/** Which files are offered. */
export const acceptedFiles = '.svg,.svgz,.dxf,.pdf,.png,.jpg,.jpeg,.stl';

/** @throws Error where a file is larger than what is taken */
export function expectSmall({ name, size }: File): void {
  if (size > largestSending)
    throw new Error(t('{{name}} has more than 10 MB. Send a smaller file, or bring it to the workshop.', { name }));
}
