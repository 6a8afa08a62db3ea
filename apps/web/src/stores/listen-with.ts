import type { ServerEvent } from '@lambent/contracts';
import type { EventNews } from './latest-events.ts';

/** Where the server refused, it is asked again after so long: nobody may have been signed in. */
const refusedMs = 2000;

/** Opens an event stream. The browser opens it again by itself when it breaks. @param tell is told what is heard */
export function listenWith(tell: (news: EventNews) => void): void {
  const source = new EventSource('/api/events');
  source.onopen = () => tell({ connected: true });
  source.onerror = () => {
    tell({ connected: false });
    if (source.readyState === EventSource.CLOSED) setTimeout(() => listenWith(tell), refusedMs);
  };
  source.onmessage = (message) => tell({ event: JSON.parse(message.data) as ServerEvent });
}
