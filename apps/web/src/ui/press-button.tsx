import { type ComponentProps, useRef } from 'react';
import { Button } from './button.tsx';

/**
 * A button that acts when it is pressed, not when it is let go, as a stop at a machine does. What moves away under a
 * finger has been pressed all the same.
 */
export function PressButton({ act, ...rest }: Omit<ComponentProps<typeof Button>, 'onClick'> & { act: () => void }) {
  const hasActed = useRef(false);
  return (
    <Button
      {...rest}
      onPointerDown={({ button }) => {
        if (button !== 0) return;
        hasActed.current = true;
        act();
      }}
      onClick={({ detail }) => {
        // The click that ends a press says nothing new. Keys have none before it, nor do some screen readers.
        if (detail === 0 || !hasActed.current) act();
        hasActed.current = false;
      }}
    />
  );
}
