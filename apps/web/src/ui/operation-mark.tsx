import { burnsPictures, fillsAreas, type Operation, operationOf } from '@lambent/core/operations';

/** A short stroke in the operation's own hue and pattern, with its letter. */
export function OperationMark({ operation }: { operation: Operation }) {
  const { colour, dash, letter } = operationOf(operation);
  return (
    <svg width="30" height="16" viewBox="0 0 30 16" aria-hidden="true" className="shrink-0">
      {burnsPictures(operation) ? (
        [0.3, 0.65, 1].map((share, i) => (
          <rect key={share} x={1 + i * 4.7} y="4" width="4.7" height="8" fill={colour} fillOpacity={share} />
        ))
      ) : fillsAreas(operation) ? (
        <rect x="1" y="4" width="14" height="8" rx="2" fill={colour} />
      ) : (
        <line x1="0" y1="8" x2="16" y2="8" stroke={colour} strokeWidth="2.2" strokeDasharray={dash.join(' ')} />
      )}
      <text x="19.500" y="12" fontSize="11" fontWeight="700" fill="currentColor">
        {letter}
      </text>
    </svg>
  );
}
