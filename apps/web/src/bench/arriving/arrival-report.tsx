import type { NoteKind, Reading, ReadingNote } from '@lambent/core/formats';
import { useMemo } from 'react';
import { useInSentence } from '../../stores/numbers.ts';
import { FileButton } from '../../ui/file-button.tsx';
import { t } from '../../words/words.ts';
import { useBenchActions } from '../context.ts';
import { Part } from '../stages/drawer.tsx';
import { loadFont } from './arriving.ts';

const kinds: readonly (readonly [kind: NoteKind, title: string, ink: string])[] = [
  ['left-out', t('Left out'), 'text-stop'],
  ['changed', t('Changed'), 'text-warn'],
  ['taken', t('Taken'), 'text-quiet'],
];

/** How much was left out and changed, said at once; a click goes to the report. */
export function ReportSummary({ notes, show }: { notes: readonly ReadingNote[]; show: () => void }) {
  const parts = kinds
    .filter(([kind]) => kind !== 'taken')
    .map(([kind, title, ink]) => ({ title, ink, count: notes.filter((note) => note.kind === kind).length }))
    .filter(({ count }) => count > 0);
  if (parts.length === 0) return null;
  return (
    <button type="button" onClick={show} className="flex gap-2 text-[12px] font-semibold hover:underline">
      {parts.map(({ title, ink, count }) => (
        <span key={title} className={ink}>
          {title}: {count}
        </span>
      ))}
    </button>
  );
}

/** What was taken, changed and left out; each can be shown. */
export function Report({ reading: { notes, drawing } }: { reading: Reading }) {
  const known = useMemo(() => new Set(drawing.items.map(({ id }) => id)), [drawing]);
  if (notes.length === 0) {
    return (
      <Part title={t('Report')}>
        <p>{t('All of the file is taken as it is drawn.')}</p>
      </Part>
    );
  }
  return (
    <Part title={t('Report')}>
      {kinds.map(([kind, title, ink]) => {
        const own = notes.filter((note) => note.kind === kind);
        if (own.length === 0) return null;
        return (
          <div key={kind}>
            <h3 className={`font-semibold ${ink}`}>{title}</h3>
            <ul className="flex flex-col gap-1">
              {own.map((note) => (
                <NoteRow
                  key={`${note.code} ${note.message}`}
                  note={note}
                  shows={note.itemIds.some((id) => known.has(id))}
                />
              ))}
            </ul>
          </div>
        );
      })}
      {notes.some(({ code }) => code === 'font-substituted') && <LoadFont />}
    </Part>
  );
}

/** A font that a text wants, loaded from a file for this and every later drawing. */
function LoadFont() {
  const actions = useBenchActions();
  return (
    <FileButton
      className="self-start"
      accept=".ttf,.otf,.woff"
      testId="font-chooser"
      take={(file) => void loadFont(actions, file)}
    >
      {t('Load a font…')}
    </FileButton>
  );
}

function NoteRow({ note, shows }: { note: ReadingNote; shows: boolean }) {
  const inSentence = useInSentence();
  const actions = useBenchActions();
  return (
    <li className="flex items-start gap-1.5" data-testid={`note-${note.code}`}>
      <span className="figures mt-px min-w-5 shrink-0 text-right text-[12px] text-quiet">{note.count}</span>
      <span className="min-w-0 flex-1 break-words">{inSentence(note.message)}</span>
      {shows && (
        <button
          type="button"
          className="shrink-0 font-semibold text-petrol hover:underline"
          onPointerEnter={() => actions.pointOut(note.itemIds)}
          onPointerLeave={() => actions.pointOut([])}
          onFocus={() => actions.pointOut(note.itemIds)}
          onBlur={() => actions.pointOut([])}
          onClick={() => actions.pointOut(note.itemIds)}
        >
          {t('Show')}
        </button>
      )}
    </li>
  );
}
