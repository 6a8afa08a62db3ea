import type { ReactNode } from 'react';

/** One card of the Shop: a heading, a sentence, and what is settled there. */
export function ShopCard({ title, about, children }: { title: string; about?: ReactNode; children: ReactNode }) {
  return (
    <section aria-label={title} className="rounded-xl border border-line bg-paper p-4">
      <h2 className={`text-[15px] font-bold ${about ? '' : 'mb-3'}`}>{title}</h2>
      {about && <p className="mb-3 text-quiet">{about}</p>}
      {children}
    </section>
  );
}
