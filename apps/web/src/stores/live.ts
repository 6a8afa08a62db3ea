import type { MachineState, RunAnswer, ServerEvent } from '@lambent/contracts';
import { create } from 'zustand';

interface Live {
  /** False while the server does not answer. */
  connected: boolean;
  machines: Readonly<Record<string, MachineState>>;
  /** Runs that were heard of since the page was opened, by id. */
  runs: Readonly<Record<string, RunAnswer>>;
}

/** What the machines do now, as the server tells it. */
export const useLive = create<Live>(() => ({ connected: true, machines: {}, runs: {} }));

/** Opens the event stream; the browser opens it again by itself when it breaks. */
export function listenToServer(): void {
  const source = new EventSource('/api/events');
  source.onopen = () => useLive.setState({ connected: true });
  source.onerror = () => useLive.setState({ connected: false });
  source.onmessage = (message) => {
    const event = JSON.parse(message.data) as ServerEvent;
    if (event.type === 'machine') {
      useLive.setState(({ machines }) => ({ machines: { ...machines, [event.machine.machineId]: event.machine } }));
    } else {
      takeRun(event.run);
    }
  };
}

/** A run as it is now. */
export function takeRun(run: RunAnswer): void {
  useLive.setState(({ runs }) => ({ runs: { ...runs, [run.id]: run } }));
}
