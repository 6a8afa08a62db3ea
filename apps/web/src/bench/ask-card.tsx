import { Button } from '../ui/button.tsx';
import { t } from '../words/words.ts';
import { useBench, useBenchActions } from './context.ts';
import { jobOf } from './state/document.ts';
import { nameOf } from './thing-names.ts';
import { chooseTool } from './tools/choose.ts';
import { PlaceTool } from './tools/place-tool.ts';
import { askingToolNames } from './tools/tool.ts';

/** What clicks on the bed say while a question is open: why a point is filled, numbers, starts. */
export function AskCard() {
  const actions = useBenchActions();
  const atHand = useBench((state) => state.tool);
  const tool = atHand?.name;
  if (!tool || !(tool === 'place' || askingToolNames.some((name) => name === tool))) return null;
  const close = () => chooseTool(actions, 'pick');
  return (
    <section
      aria-label={t('On the bed')}
      className="max-w-[520px] rounded-xl border border-line bg-paper px-3.5 py-2.5 shadow-float"
    >
      <div className="flex items-center gap-3">
        <div className="min-w-0 flex-1">
          {tool === 'why' && <Answers />}
          {tool === 'number' && <Numbers />}
          {atHand.words && <p>{atHand.words}.</p>}
          {tool === 'start' && (
            <p>{t('Click outlines where they are to start; points and middles catch the click.')}</p>
          )}
          {tool === 'tabs' && (
            <p>
              {t(
                'Click an outline that is cut to hold it there by a tab. Drag a tab along, or click it to take it away.',
              )}
            </p>
          )}
        </div>
        <Button onClick={close} title={t('Esc')}>
          {atHand instanceof PlaceTool ? t('Never mind') : t('Done')}
        </Button>
      </div>
    </section>
  );
}

function Numbers() {
  const count = useBench((state) => jobOf(state).numbered.length);
  return (
    <p>
      {t('Click items in the order they are to burn: {{counted}}. A second click takes a number back.', {
        counted:
          count === 0
            ? t('the next is 1')
            : t('{{count}} numbered, the next is {{count2}}', { count, count2: count + 1 }),
      })}
    </p>
  );
}

function Answers() {
  const asked = useBench((state) => state.asked);
  if (!asked) return <p>{t('Click a point of the bed to see why it is engraved there, or why not.')}</p>;
  if (asked.answers.length === 0)
    return <p>{t('Nothing is engraved there: no outline of an engrave layer lies around it.')}</p>;
  return (
    <ul className="flex flex-col gap-1.5">
      {asked.answers.map(({ layer, filled, around, because }) => (
        <li key={layer.id}>
          <p>
            <span className="font-bold">{filled ? t('It burns.') : t('It does not burn.')}</span> {because}
          </p>
          <ol className="text-[12px] text-quiet">
            {around.map(({ item, fills }, i) => (
              <li key={item.id + String(i)}>
                {i + 1}. {nameOf(item)}: {fills ? t('fills') : t('makes a hole')}
              </li>
            ))}
          </ol>
        </li>
      ))}
    </ul>
  );
}
