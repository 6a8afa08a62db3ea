import { type ComponentProps, useRef } from 'react';
import { Button } from './button.tsx';

interface Props extends Omit<ComponentProps<typeof Button>, 'onClick'> {
  /** Which files are offered, as an input has it. */
  accept: string;
  /** What tests find the input by. */
  testId: string;
  /** Takes the file that was chosen; the same one can be chosen again. */
  take: (file: File) => void;
}

/** A button that asks for a file. */
export function FileButton({ accept, testId, take, children, ...rest }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button {...rest} onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="hidden"
        data-testid={testId}
        onChange={(event) => {
          const [picked] = event.target.files ?? [];
          event.target.value = '';
          if (picked) take(picked);
        }}
      />
    </>
  );
}
