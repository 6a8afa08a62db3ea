import { Button } from '../ui/button.tsx';
import { t } from '../words/words.ts';
import { useBench, useBenchActions } from './context.ts';
import { closeGroup } from './open-group.ts';
import { jobOf } from './state/document.ts';

/** Says which group is open, and closes it. */
export function GroupChip() {
  const actions = useBenchActions();
  const openGroup = useBench((state) => state.openGroup);
  const group = useBench((state) => jobOf(state).drawing.groups.find(({ id }) => id === openGroup));
  if (!group) return null;
  return (
    <div
      role="status"
      className="absolute left-1/2 top-[72px] z-10 flex -translate-x-1/2 h-8 items-center gap-2 rounded-lg border border-petrol/40 bg-paper/95 pl-2.5 pr-1"
    >
      <span className="max-w-[200px] truncate">{t('{{name}} is open', { name: group.name ?? t('A group') })}</span>
      <Button look="quiet" onClick={() => closeGroup(actions)}>
        {t('Close it (Esc)')}
      </Button>
    </div>
  );
}
