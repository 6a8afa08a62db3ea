import { makeCode } from '@lambent/core/codes';
import { fillRows } from '@lambent/core/rows';

/** What codes and lists take: it comes when there is one. */
export { fillRows, makeCode };
