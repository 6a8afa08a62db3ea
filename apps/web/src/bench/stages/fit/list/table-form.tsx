import type { Row } from '@lambent/core/document';
import { type ListWords, readTable, type TableFault, TableRefused } from '@lambent/core/rows';
import { useState } from 'react';
import { Button } from '../../../../ui/button.tsx';
import { FileButton } from '../../../../ui/file-button.tsx';
import { Tick } from '../../../../ui/tick.tsx';
import { said, t } from '../../../../words/words.ts';
import { Trouble } from '../placing-fields.tsx';

interface Props {
  /** What stands in the table at first. */
  words: string;
  /** The rows that there are already. */
  known: readonly Row[];
  button: string;
  take: (words: ListWords, faults: readonly TableFault[]) => void;
}

/** A table as text: typed, pasted, or from a file. */
export function TableForm({ words: first, known, button, take }: Props) {
  const [words, setWords] = useState(first);
  const [hasHeader, setHeader] = useState(true);
  const [trouble, setTrouble] = useState<string | null>(null);
  const read = () => {
    try {
      const { faults, ...list } = readTable(words, hasHeader, known);
      setTrouble(null);
      take(list, faults);
    } catch (error) {
      if (!(error instanceof TableRefused)) throw error;
      setTrouble(said(error.message));
    }
  };
  const fromFile = async (file: File) => {
    try {
      setWords(await textOf(file));
      setTrouble(null);
    } catch {
      setTrouble(t('{{file}} cannot be read. Save it as CSV in UTF-8, and choose it again.', { file: file.name }));
    }
  };
  return (
    <>
      <label className="flex flex-col gap-1">
        <span className="text-quiet">{t('Rows')}</span>
        <textarea
          rows={7}
          value={words}
          spellCheck={false}
          placeholder={`${t('name')}\t${t('what')}`}
          onChange={(event) => setWords(event.target.value)}
          className="figures resize-y rounded-lg border border-line bg-raised px-2.5 py-1.5 text-[12.5px] focus:border-petrol focus:outline-none"
          style={{ tabSize: 14 }}
        />
      </label>
      <Tick checked={hasHeader} set={setHeader}>
        {t('the first row names the columns')}
      </Tick>
      <Trouble words={trouble} />
      <div className="flex flex-wrap gap-1.5">
        <Button look="main" disabled={words.trim() === ''} onClick={read}>
          {button}
        </Button>
        <FileButton accept=".csv,.tsv,.txt,text/csv" testId="list-file" take={(file) => void fromFile(file)}>
          {t('From a CSV file…')}
        </FileButton>
      </div>
    </>
  );
}

/** What a file says, in UTF-8, or in UTF-16 where it begins so. @throws TypeError where it is neither */
async function textOf(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const isLittle = bytes[0] === 0xff && bytes[1] === 0xfe;
  const isBig = bytes[0] === 0xfe && bytes[1] === 0xff;
  const encoding = isLittle ? 'utf-16le' : isBig ? 'utf-16be' : 'utf-8';
  return new TextDecoder(encoding, { fatal: true }).decode(bytes);
}
