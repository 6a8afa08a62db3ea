import { NotAFamily } from '@lambent/core/builders';
import { NotAKey } from '@lambent/core/colours';
import { NotADrawing } from '@lambent/core/document';
import { FileRefused } from '@lambent/core/formats';
import { NotAMachine } from '@lambent/core/machine';
import { NotABook, NotAPriceList } from '@lambent/core/recipes';
import { FontRefused } from '@lambent/core/text';
import { MachineRefusal } from '@lambent/machines';
import { PlainError } from './plain-error.ts';

/** What is wrong with what was asked, as it is answered; plain data, so that it also comes from another thread. */
export interface Refusal {
  readonly status: number;
  readonly code: string;
  readonly message: string;
  readonly details?: unknown;
}

/** The refusal that an error is; null where something went wrong inside. */
export function refusalOf(error: unknown): Refusal | null {
  if (error instanceof PlainError) {
    const { status, code, message, details } = error;
    return { status, code, message, details };
  }
  if (error instanceof MachineRefusal) return { status: 409, code: error.code, message: error.message };
  if (error instanceof FileRefused) return { status: 422, code: 'file-refused', message: error.message };
  if (error instanceof FontRefused) return { status: 415, code: 'not-a-font', message: error.message };
  if (error instanceof NotAPriceList) return { status: 400, code: 'not-a-price-list', message: error.message };
  if (error instanceof NotABook) return { status: 400, code: 'not-a-book', message: error.message };
  if (error instanceof NotAKey) return { status: 400, code: 'not-a-key', message: error.message };
  if (error instanceof NotAMachine) return { status: 400, code: 'not-a-machine', message: error.message };
  if (error instanceof NotAFamily) return { status: 400, code: 'not-a-family', message: error.message };
  if (error instanceof NotADrawing)
    return { status: 400, code: 'not-a-job', message: `What was sent is not a job: ${error.message}.` };
  return null;
}

/** The error that a refusal from another thread was. */
export function errorOf({ status, code, message, details }: Refusal): PlainError {
  return new PlainError(status, code, message, details);
}
