import type { Machine, MachineDoubt } from '@lambent/core/machine';
import type { ReactNode } from 'react';
import { inSentence } from '../stores/numbers.ts';

/** A field, and what is doubtful about what stands in it. */
export function Doubts(props: { about: keyof Machine; doubts: readonly MachineDoubt[]; children: ReactNode }) {
  const { about, doubts, children } = props;
  return (
    <div className="min-w-0">
      {children}
      {doubts
        .filter((doubt) => doubt.about === about)
        .map(({ message, blocks }) => (
          <p
            key={message}
            role={blocks ? 'alert' : 'status'}
            className={`mt-1 text-[12px] ${blocks ? 'text-stop' : 'text-warn'}`}
          >
            {inSentence(message)}
          </p>
        ))}
    </div>
  );
}
