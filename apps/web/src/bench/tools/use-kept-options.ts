import { useEffect } from 'react';
import { useBenchActions, useBenchSubscribe } from '../context.ts';
import { keepSettings, keptSettings } from '../kept-settings.ts';
import { usualOptions } from './tool-options.ts';

const name = 'tools';

/** Begins with what tools were set to last, and keeps what they are set to; what was written with one is not kept. */
export function useKeptOptions(): void {
  const actions = useBenchActions();
  const subscribe = useBenchSubscribe();
  useEffect(() => {
    actions.setToolOptions(keptSettings(name, usualOptions));
    let last = actions.get().toolOptions;
    return subscribe(() => {
      const { toolOptions } = actions.get();
      if (toolOptions === last) return;
      last = toolOptions;
      keepSettings(name, { ...toolOptions, text: { ...toolOptions.text, words: usualOptions.text.words } });
    });
  }, [actions, subscribe]);
}
