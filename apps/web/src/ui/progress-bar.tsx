/** How much of something is done. @param share from 0 to 1 */
export function ProgressBar({ label, share }: { label: string; share: number }) {
  const percent = Math.round(share * 100);
  return (
    <div
      role="progressbar"
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={percent}
      className="h-1.5 min-w-0 flex-1 overflow-hidden rounded-full bg-line"
    >
      <div className="h-full rounded-full bg-petrol" style={{ width: `${percent}%` }} />
    </div>
  );
}
