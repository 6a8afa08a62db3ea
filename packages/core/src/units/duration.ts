/** A time in seconds as `0:24`, `8:12` or `1:04:09`. */
export function formatClock(seconds: number): string {
  const whole = Math.round(Math.max(0, seconds));
  const s = String(whole % 60).padStart(2, '0');
  const m = Math.floor(whole / 60) % 60;
  const h = Math.floor(whole / 3600);
  return h > 0 ? `${h}:${String(m).padStart(2, '0')}:${s}` : `${m}:${s}`;
}

/** A time in seconds as `24 s`, `11 min 20 s` or `1 h 4 min`. */
export function formatDuration(seconds: number): string {
  const whole = Math.round(Math.max(0, seconds));
  const h = Math.floor(whole / 3600);
  const m = Math.floor(whole / 60) % 60;
  const s = whole % 60;
  if (h > 0) return `${h} h ${m} min`;
  if (m > 0) return `${m} min ${s} s`;
  return `${s} s`;
}
