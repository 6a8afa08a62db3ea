import { bytesOfMb } from '@lambent/contracts';
import { t } from '../words/words.ts';

/** Which files are offered. */
export const acceptedFiles = '.svg,.svgz,.dxf,.pdf,.png,.jpg,.jpeg,.stl';

/** @param most the largest file that is taken, in MB @throws Error where a file is larger */
export function expectSmall({ name, size }: File, most: number): void {
  if (size > bytesOfMb(most))
    throw new Error(
      t('{{name}} has more than {{most}} MB. Send a smaller file, or bring it to the workshop.', { name, most }),
    );
}
