import { OffcutDto, PutBackDto, type RunAnswer, type TakenSheet } from '@lambent/contracts';
import { api } from '../../../../api.ts';
import { Button } from '../../../../ui/button.tsx';
import { LengthInput, useCheckedForm } from '../../../../ui/form.tsx';
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
export default function TakenForm({
  doing,
  left,
  ...rest
}: Props & {
  doing: 'put-back' | 'offcut';
  /** What is likely to be left, in mm; null where that cannot be said. */
  left: { readonly width: number; readonly height: number } | null;
}) {
  return doing === 'offcut' ? <KeepOffcut {...rest} left={left} /> : <PutBack {...rest} />;
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

function KeepOffcut({ runId, sheet, send, leave, left }: Props & { left: { width: number; height: number } | null }) {
  const unit = useBench(unitOf);
  const { width, height } = left ?? { width: sheet.width, height: sheet.height / 2 };
  const { control, handleSubmit } = useCheckedForm(OffcutDto, {
    by: useLastWitness(),
    sheetId: sheet.sheetId,
    width,
    height,
  });
  return (
    <form
      aria-label={t('Keep the offcut')}
      className={look}
      onSubmit={handleSubmit((wish) => send(wish.by, () => api.keepOffcut(runId, wish)))}
    >
      <div className="grid grid-cols-2 gap-1.5">
        <LengthInput control={control} name="width" label={t('Offcut’s width')} unit={unit} />
        <LengthInput control={control} name="height" label={t('Its height')} unit={unit} />
      </div>
      <SignedBy control={control} name="by" label={t('You are')} />
      <Buttons words={t('Keep the offcut')} leave={leave} />
    </form>
  );
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
