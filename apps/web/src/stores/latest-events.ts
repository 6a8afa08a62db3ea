import type { ServerEvent } from '@lambent/contracts';

/** What a tab is told: something happened on the server, or its line was opened or broke. */
export type EventNews = { readonly event: ServerEvent } | { readonly connected: boolean };

/** How things stand, for those who come later: the last of each kind, of each machine. Runs are asked for. */
export class LatestEvents {
  private readonly kept = new Map<string, EventNews>();

  take(news: EventNews): void {
    if ('connected' in news) this.kept.set('connected', news);
    else if (news.event.type === 'storage') this.kept.set('storage', news);
    else if (news.event.type === 'machine') this.kept.set(`machine ${news.event.machine.machineId}`, news);
  }

  all(): EventNews[] {
    return [...this.kept.values()];
  }
}
