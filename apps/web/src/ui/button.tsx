import type { ButtonHTMLAttributes } from 'react';

type Look = 'main' | 'plain' | 'quiet' | 'danger';

const looks: Record<Look, string> = {
  main: 'bg-petrol text-on-petrol hover:brightness-110 border-transparent font-semibold',
  plain: 'bg-raised text-ink border-line hover:border-petrol',
  quiet: 'bg-transparent text-petrol border-transparent hover:bg-petrol-soft font-semibold',
  danger: 'bg-raised text-stop border-stop hover:bg-stop-soft font-semibold',
};

/** How a button looks, for a link that stands among buttons. */
export function buttonLook(look: Look): string {
  return `inline-flex h-8 items-center justify-center gap-1.5 whitespace-nowrap rounded-lg border px-3 text-[13px] transition-colors duration-100 disabled:cursor-not-allowed disabled:opacity-50 ${looks[look]}`;
}

/** A button; `main` for what is done next, `plain` for the rest. */
export function Button({
  look = 'plain',
  className = '',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: Look }) {
  return <button type="button" className={`${buttonLook(look)} ${className}`} {...rest} />;
}

/** A square button with a picture; `label` is its name and its tooltip. */
export function IconButton({
  label,
  pressed,
  className = '',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { label: string; pressed?: boolean }) {
  return (
    <button
      type="button"
      aria-label={label}
      aria-pressed={pressed}
      title={label}
      className={`inline-flex size-8 items-center justify-center rounded-lg text-ink transition-colors duration-100 hover:bg-petrol-soft disabled:cursor-not-allowed disabled:opacity-35 disabled:hover:bg-transparent aria-pressed:bg-petrol-soft aria-pressed:text-petrol ${className}`}
      {...rest}
    />
  );
}
