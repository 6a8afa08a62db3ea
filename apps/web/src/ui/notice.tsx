import { CircleAlert, Info, OctagonX } from 'lucide-react';
import type { ReactNode } from 'react';
import { useInSentence } from '../stores/numbers.ts';

const looks = {
  blocks: { box: 'border-stop/50 bg-stop-soft', ink: 'text-stop', icon: OctagonX },
  warns: { box: 'border-warn/40 bg-warn-soft', ink: 'text-warn', icon: CircleAlert },
  notes: { box: 'border-line bg-table', ink: 'text-quiet', icon: Info },
};

/** Something the operator should know, as grave as `level` says. */
export function Notice({ level, title, children }: { level: keyof typeof looks; title?: string; children: ReactNode }) {
  const inSentence = useInSentence();
  const { box, ink, icon: Icon } = looks[level];
  return (
    <div className={`flex gap-2 rounded-[10px] border p-3 ${box}`}>
      <Icon size={16} className={`mt-0.5 shrink-0 ${ink}`} aria-hidden />
      <div className="min-w-0 flex-1">
        {title && <p className="font-semibold">{title}</p>}
        {typeof children === 'string' ? inSentence(children) : children}
      </div>
    </div>
  );
}
