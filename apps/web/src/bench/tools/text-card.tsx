import type { TextSetting } from '@lambent/core/document';
import { useQuery } from '@tanstack/react-query';
import { AlignCenter, AlignLeft, AlignRight, Bold, Italic } from 'lucide-react';
import { Button, IconButton } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { formatLength } from '../../ui/figures.ts';
import { LengthField } from '../../ui/length-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { t } from '../../words/words.ts';
import { work } from '../../workers/work.ts';
import { useBench, useBenchActions } from '../context.ts';
import { unitOf } from '../state/document.ts';
import { dropText, finishText, resetText } from './text-tool.ts';

const aligns = [
  { value: 'left', icon: AlignLeft, text: t('From the left') },
  { value: 'centre', icon: AlignCenter, text: t('Around the middle') },
  { value: 'right', icon: AlignRight, text: t('To the right') },
] as const;

/** A text while it is written: its words and how they are set, live on the bed. */
export function TextCard() {
  const actions = useBenchActions();
  const edit = useBench((state) => state.textEdit);
  const unit = useBench(unitOf);
  const families = useQuery({ queryKey: ['families'], queryFn: () => work('families', []) }).data ?? [];
  if (!edit) return null;
  const { setting } = edit;
  const text = edit.outlined?.text;
  const change = (part: Partial<TextSetting>) => void resetText(actions, { ...setting, ...part });
  return (
    <section
      aria-label={t('Text')}
      className="flex w-[560px] flex-col gap-2 rounded-xl border border-line bg-paper p-3 shadow-float"
    >
      <div className="flex gap-2.5">
        <textarea
          aria-label={t('Words')}
          // biome-ignore lint/a11y/noAutofocus: writing begins where the operator clicked
          autoFocus
          rows={3}
          value={setting.words}
          placeholder={t('Type the words')}
          maxLength={5000}
          onChange={(event) => change({ words: event.target.value })}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
              event.preventDefault();
              void finishText(actions);
            }
            if (event.key === 'Escape') {
              event.stopPropagation();
              dropText(actions);
            }
          }}
          className="min-w-0 flex-1 resize-none rounded-lg border border-line bg-raised px-2.5 py-1.5 focus:border-petrol focus:outline-none"
        />
        <div className="flex w-[232px] flex-col gap-2">
          <Choice
            label={t('Family')}
            value={setting.family}
            empty={setting.family}
            options={families.map((value) => ({ value, text: value }))}
            choose={(family) => change({ family })}
          />
          <div className="flex items-center gap-0.5">
            <IconButton label={t('Bold')} pressed={setting.bold} onClick={() => change({ bold: !setting.bold })}>
              <Bold size={16} aria-hidden />
            </IconButton>
            <IconButton
              label={t('Italic')}
              pressed={setting.italic}
              onClick={() => change({ italic: !setting.italic })}
            >
              <Italic size={16} aria-hidden />
            </IconButton>
            <span className="mx-1 h-5 w-px bg-line" aria-hidden />
            {aligns.map(({ value, icon: Icon, text }) => (
              <IconButton
                key={value}
                label={text}
                pressed={setting.align === value}
                onClick={() => change({ align: value })}
              >
                <Icon size={16} aria-hidden />
              </IconButton>
            ))}
          </div>
        </div>
      </div>
      <div className="flex items-end gap-2">
        <LengthField
          label={t('Capitals')}
          unit={unit}
          value={setting.height}
          commit={(height) => {
            if (!(height > 0 && height <= 1000)) return t('Between 0 and 1000 mm.');
            change({ height });
            return undefined;
          }}
        />
        <LengthField
          label={t('Letters apart')}
          unit={unit}
          value={setting.spacing}
          commit={(spacing) => void change({ spacing })}
        />
        <NumberField
          label={t('Lines')}
          unit="×"
          layout="stack"
          value={setting.leading}
          least={0.3}
          most={5}
          commit={(leading) => change({ leading })}
        />
        <LengthField
          label={t('Widest (0: free)')}
          unit={unit}
          value={setting.width ?? 0}
          within={[0, 10_000]}
          commit={(width) => void change({ width: width > 0 ? width : null })}
        />
        <Button look="quiet" onClick={() => dropText(actions)}>
          {t('Leave')}
        </Button>
        <Button look="main" title={t('Ctrl Enter')} onClick={() => void finishText(actions)}>
          {t('Done')}
        </Button>
      </div>
      {setting.width !== null && <FrameFields setting={setting} change={change} />}
      {text && text.over > 0 && (
        <p role="alert" className="text-[12px] text-warn">
          {t('It is {{over}} larger than its frame.', { over: formatLength(text.over, unit) })}
        </p>
      )}
      {text?.substitute && (
        <p role="alert" className="text-[12px] text-warn">
          {t('{{family}} is not here; the text is set in {{substitute}}.', {
            family: setting.family,
            substitute: text.substitute,
          })}
        </p>
      )}
      {text && text.missing.length > 0 && (
        <p role="alert" className="text-[12px] text-warn">
          {t('{{family}} does not have {{missing}}; choose another family, or load one that has.', {
            family: setting.family,
            missing: text.missing.slice(0, 12).join(' '),
          })}
        </p>
      )}
    </section>
  );
}

/** What becomes of a text that is wider than its frame, and how high that is. */
function FrameFields({ setting, change }: { setting: TextSetting; change: (part: Partial<TextSetting>) => void }) {
  const unit = useBench(unitOf);
  return (
    <div className="flex items-end gap-2">
      <div className="w-[232px]">
        <Choice
          label={t('Longer texts')}
          look="slim"
          bare={false}
          value={setting.fit ?? 'broken'}
          options={[
            { value: 'broken', text: t('are broken between words') },
            { value: 'smaller', text: t('are set smaller') },
            { value: 'narrower', text: t('are set narrower') },
          ]}
          choose={(fit) => change({ fit: fit === 'broken' ? undefined : fit })}
        />
      </div>
      {setting.fit === 'smaller' && (
        <LengthField
          label={t('Capitals at least')}
          unit={unit}
          value={setting.leastHeight ?? 0}
          within={[0, 1000]}
          commit={(leastHeight) => change({ leastHeight })}
        />
      )}
      <LengthField
        label={t('Highest (0: free)')}
        unit={unit}
        value={setting.depth ?? 0}
        within={[0, 10_000]}
        commit={(depth) => change({ depth: depth > 0 ? depth : undefined })}
      />
    </div>
  );
}
