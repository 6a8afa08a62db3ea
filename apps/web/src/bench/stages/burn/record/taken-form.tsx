import { Radio, RadioGroup } from '@headlessui/react';
import { OffcutDto, PutBackDto, type RunAnswer, type TakenSheet } from '@lambent/contracts';
import { type Offcut, offcutsLeft } from '@lambent/core/packing';
import { useState } from 'react';
import { api } from '../../../../api.ts';
import { Button } from '../../../../ui/button.tsx';
import { formatLength } from '../../../../ui/figures.ts';
import { LengthInput, useCheckedForm } from '../../../../ui/form.tsx';
import { OutlinePicture } from '../../../../ui/outline-picture.tsx';
import { SignedBy } from '../../../../ui/signed-by.tsx';
import { t } from '../../../../words/words.ts';
import { useBench } from '../../../context.ts';
import { unitOf } from '../../../state/document.ts';
import { useLastWitness } from '../../keeping.ts';

interface Props {
  runId: string;
  sheet: TakenSheet;
  /** Asks the server, and has the page go by its answer. */
  send: (author: string, ask: () => Promise<RunAnswer>) => void;
  leave: () => void;
}

/** Puts a sheet back, or keeps what is left of it. */
export default function TakenForm({ doing, ...rest }: Props & { doing: 'put-back' | 'offcut' }) {
  return doing === 'offcut' ? <KeepOffcut {...rest} /> : <PutBack {...rest} />;
}

const look = 'mt-1 flex flex-col gap-1.5 text-[13px]';

function PutBack({ runId, sheet, send, leave }: Props) {
  const { control, handleSubmit } = useCheckedForm(PutBackDto, { by: useLastWitness(), sheetId: sheet.sheetId });
  return (
    <form
      aria-label={t('Put it back')}
      className={look}
      onSubmit={handleSubmit((wish) => send(wish.by, () => api.putSheetBack(runId, wish)))}
    >
      <SignedBy control={control} name="by" label={t('You are')} />
      <Buttons words={t('Put it back')} leave={leave} />
    </form>
  );
}

function KeepOffcut({ runId, sheet, send, leave }: Props) {
  const unit = useBench(unitOf);
  const prepared = useBench((state) => state.prepared);
  const [parts] = useState(() => {
    const laid = prepared.job.sheets.find(({ id }) => id === sheet.sheetId);
    const kept = sheet.keptOffcuts ?? [];
    return laid ? offcutsLeft(prepared, laid).filter((left) => !kept.some((each) => isSame(asKept(left), each))) : [];
  });
  const [part, setPart] = useState<Offcut | null>(parts[0] ?? null);
  const { control, handleSubmit } = useCheckedForm(OffcutDto, {
    by: useLastWitness(),
    sheetId: sheet.sheetId,
    width: sheet.width,
    height: sheet.height / 2,
  });
  const keep = handleSubmit((wish) =>
    send(wish.by, () => api.keepOffcut(runId, part ? { ...wish, ...asKept(part) } : wish)),
  );
  return (
    <form aria-label={t('Keep the offcut')} className={look} onSubmit={keep}>
      {parts.length > 0 && (
        <RadioGroup value={part} onChange={setPart} aria-label={t('What is left')} className="flex flex-wrap gap-1.5">
          {parts.map((left, i) => (
            <Radio key={i} value={left} className={choiceLook}>
              <OutlinePicture shape={left} className="h-14 w-20" />
              <span className="figures">
                {formatLength(left.width, unit, { bare: true })} × {formatLength(left.height, unit)}
              </span>
            </Radio>
          ))}
          <Radio value={null} className={choiceLook}>
            <span className="flex h-14 w-20 items-center text-center">{t('A rectangle that I cut')}</span>
          </Radio>
        </RadioGroup>
      )}
      {part === null && (
        <div className="grid grid-cols-2 gap-1.5">
          <LengthInput control={control} name="width" label={t('Offcut’s width')} unit={unit} />
          <LengthInput control={control} name="height" label={t('Its height')} unit={unit} />
        </div>
      )}
      <SignedBy control={control} name="by" label={t('You are')} />
      <Buttons words={t('Keep the offcut')} leave={leave} />
    </form>
  );
}

const choiceLook =
  'flex cursor-pointer flex-col items-center gap-1 rounded-lg border border-line bg-raised p-1.5 text-[12px] data-checked:border-petrol data-checked:bg-petrol/10';

/** An offcut as it is sent: of a plain rectangle, its size says it all. */
function asKept({ width, height, outline }: Offcut): Kept {
  const isRectangle =
    outline.length === 1 &&
    outline[0].length === 8 &&
    outline[0].every((mm, i) => isAtEnd(mm, i % 2 === 0 ? width : height));
  return { width, height, ...(isRectangle ? {} : { outline: outline.map((ring) => [...ring]) }) };
}

type Kept = Pick<OffcutDto, 'width' | 'height' | 'outline'>;

function isSame(left: Kept, kept: Kept): boolean {
  const said = ({ width, height, outline = [] }: Kept) => JSON.stringify([width, height, outline]);
  return said(left) === said(kept);
}

function isAtEnd(mm: number, end: number): boolean {
  return Math.min(Math.abs(mm), Math.abs(mm - end)) < 0.01;
}

function Buttons({ words, leave }: { words: string; leave: () => void }) {
  return (
    <div className="flex gap-1.5">
      <Button type="submit">{words}</Button>
      <Button look="quiet" onClick={leave}>
        {t('Never mind')}
      </Button>
    </div>
  );
}
