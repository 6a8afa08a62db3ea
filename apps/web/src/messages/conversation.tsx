import { longestMessage, type MessageAnswer } from '@lambent/contracts';
import { Send } from 'lucide-react';
import { type ReactNode, useEffect, useId, useRef } from 'react';
import { sentenceOf } from '../api.ts';
import { dayAndTimeOf } from '../stores/dates.ts';
import { Button } from '../ui/button.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { useDraft } from './drafts.ts';

interface Props {
  /** A job, or the token of a sending: what is typed is kept by it. */
  readonly id: string;
  readonly messages: readonly MessageAnswer[];
  /** Why they could not be fetched; null where they were. */
  readonly error: Error | null;
  /** Who reads them here. */
  readonly reader: MessageAnswer['from'];
  readonly label: string;
  /** Sends a message; undefined where nobody would read it. */
  readonly write: ((text: string) => Promise<void>) | undefined;
  /** What else can be done beside sending. */
  readonly children?: ReactNode;
}

/** What the workshop and the sender of a job wrote to each other, and the field to write more. */
export function Conversation({ id, messages, error, reader, label, write, children }: Props) {
  const list = useRef<HTMLOListElement>(null);
  const count = messages.length;
  // The last one is in sight.
  useEffect(() => {
    if (list.current && count > 0) list.current.scrollTop = list.current.scrollHeight;
  }, [count]);
  return (
    <>
      {error && <p className="text-stop">{sentenceOf(error)}</p>}
      {messages.length > 0 && (
        <ol
          className="flex max-h-64 flex-col gap-2 overflow-y-auto"
          aria-label={t('Messages so far')}
          // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled with the keyboard
          tabIndex={0}
          ref={list}
        >
          {messages.map((message) => (
            <Message key={message.id} message={message} isOwn={message.from === reader} />
          ))}
        </ol>
      )}
      {write && (
        <WriteForm id={id} label={label} write={write}>
          {children}
        </WriteForm>
      )}
    </>
  );
}

/** What a message says; where it tells of a file, its text is the name of that. */
function textOf({ kind, text }: MessageAnswer): string {
  switch (kind) {
    case 'text':
      return text;
    case 'file-sent':
      return t('New file: {{file}}', { file: text });
    case 'file-taken':
      return t('Took the new file {{file}}.', { file: text });
    case 'file-left-out':
      return t('Left the new file {{file}} out: the one before is made.', { file: text });
  }
}

/** A message: those of who reads stand to the right. */
function Message({ message, isOwn }: { message: MessageAnswer; isOwn: boolean }) {
  const { at, from, by } = message;
  return (
    <li className={`rounded-lg px-3 py-2 ${isOwn ? 'ml-8 bg-petrol-soft' : 'mr-8 border border-line bg-raised'}`}>
      <p className="text-[12px] text-quiet">
        {by || (from === 'workshop' ? t('The workshop') : t('The sender'))}, {dayAndTimeOf(at)}
      </p>
      <p className="whitespace-pre-wrap [overflow-wrap:anywhere]">{textOf(message)}</p>
    </li>
  );
}

function WriteForm({
  id,
  label,
  write,
  children,
}: Pick<Props, 'id' | 'label' | 'children'> & { write: (text: string) => Promise<void> }) {
  const field = useId();
  const [text, setText] = useDraft(id);
  const said = text.trim();
  const [send, trouble] = useSent(async () => {
    await write(said);
    setText('');
  });
  return (
    <form
      className="mt-2 flex flex-col gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        if (said !== '') void send(undefined);
      }}
    >
      <label htmlFor={field} className="text-quiet">
        {label}
      </label>
      <textarea
        id={field}
        value={text}
        rows={2}
        maxLength={longestMessage}
        onChange={(event) => setText(event.target.value)}
        className="rounded-lg border border-line bg-raised px-3 py-2 focus:border-petrol focus:outline-none"
      />
      {trouble}
      <div className="mt-1 flex flex-wrap gap-2">
        <Button type="submit" disabled={said === ''}>
          <Send size={14} aria-hidden />
          {t('Send it')}
        </Button>
        {children}
      </div>
    </form>
  );
}
