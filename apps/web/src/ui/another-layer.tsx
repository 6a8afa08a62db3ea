import { type Operation, operationOf, operations } from '@lambent/core/operations';
import { Plus } from 'lucide-react';
import { said, t } from '../words/words.ts';
import { Choice } from './choice.tsx';
import { OperationMark } from './operation-mark.tsx';

/** Makes another layer, of the operation that is chosen. */
export function AnotherLayer({ add }: { add: (operation: Operation) => void }) {
  return (
    <Choice<Operation>
      label={t('Another layer')}
      look="chip"
      value={null}
      empty={t('Another layer')}
      icon={<Plus size={14} aria-hidden />}
      options={operations.map((operation) => ({
        value: operation,
        text: said(operationOf(operation).name),
        mark: <OperationMark operation={operation} />,
      }))}
      choose={add}
    />
  );
}
