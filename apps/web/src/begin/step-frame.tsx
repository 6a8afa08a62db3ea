import type { ReactNode } from 'react';
import { Button } from '../ui/button.tsx';
import { t } from '../words/words.ts';

interface Props {
  readonly title: string;
  readonly about: string;
  readonly children: ReactNode;
  /** What is done to finish the step, and what it is called; missing where what is chosen holds at once. */
  readonly finish?: { readonly text: string; readonly isReady: boolean; readonly run: () => void };
  readonly skip: () => void;
  readonly skipText?: string;
}

/** One first step: what it is about, what is typed, and the ways on. */
export function StepFrame({ title, about, children, finish, skip, skipText = t('Skip this step') }: Props) {
  return (
    <form
      aria-label={title}
      onSubmit={(event) => {
        event.preventDefault();
        if (finish?.isReady) finish.run();
      }}
    >
      <h2 className="text-[18px] font-bold">{title}</h2>
      <p className="mb-4 max-w-[62ch] text-quiet">{about}</p>
      {children}
      <div className="mt-5 flex flex-wrap items-center gap-2 border-t border-line pt-4">
        {finish && (
          <Button type="submit" look="main" disabled={!finish.isReady}>
            {finish.text}
          </Button>
        )}
        <Button look={finish ? 'quiet' : 'main'} onClick={skip}>
          {skipText}
        </Button>
      </div>
    </form>
  );
}
