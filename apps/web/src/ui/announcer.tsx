import { useAnnounced } from '../stores/announcer.ts';

/** What is said to screen readers, wherever one is. */
export function Announcer() {
  const { polite, urgent } = useAnnounced();
  return (
    <div className="sr-only" data-testid="announcer">
      <p role="status">{polite}</p>
      <p aria-live="assertive">{urgent}</p>
    </div>
  );
}
