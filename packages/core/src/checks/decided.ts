import { type Check, countOf, finding, withMends } from './finding.ts';

/** What readers decided where a file did not say, or could not be followed: each until it is accepted. */
export const checkDecided: Check = ({ job }) => {
  if (job.arrivals.length === 0) return [];
  const known = new Map(job.drawing.items.map((item) => [item.id, item]));
  return job.arrivals.flatMap(({ id, file, notes }) =>
    notes.map(({ code, message, count, itemIds }) => {
      const often = count > 1 ? ` (${countOf(count, 'time', 'times')})` : '';
      const items = itemIds.flatMap((itemId) => known.get(itemId) ?? []);
      const said = finding('decided', 'notes', `${file}: ${message.replace(/\.$/, '')}${often}.`, items);
      return withMends({ ...said, about: `${id} ${code} ${message}` });
    }),
  );
};
