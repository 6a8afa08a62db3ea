import { type ReactNode, useState } from 'react';
import { sentenceOf } from '../api.ts';

/**
 * Sends a form.
 * @param send asks the server, and goes on where it answers
 * @returns what sends the fields, and the sentence of a refusal, to be shown in the form; null where there is none
 */
export function useSent<Fields>(
  send: (fields: Fields) => Promise<void>,
): [(fields: Fields) => Promise<void>, ReactNode] {
  const [refusal, setRefusal] = useState<string | null>(null);
  const trySend = (fields: Fields) => {
    // What was wrong before may be right now.
    setRefusal(null);
    return send(fields).catch((error: unknown) => setRefusal(sentenceOf(error)));
  };
  const shown = refusal !== null && (
    <p role="alert" className="text-stop">
      {refusal}
    </p>
  );
  return [trySend, shown];
}
