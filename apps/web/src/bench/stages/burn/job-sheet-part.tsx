import { Download, Printer } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { sentenceOf } from '../../../api.ts';
import { wholeDayAndTimeOf } from '../../../stores/dates.ts';
import { Button } from '../../../ui/button.tsx';
import { download } from '../../../ui/download.ts';
import { t } from '../../../words/words.ts';
import { work } from '../../../workers/work.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { jobOf } from '../../state/document.ts';
import { planOf } from '../../state/plan.ts';
import { Part } from '../drawer.tsx';
import { choiceOf } from './run-choice.ts';

/** Where a job opens, by the address that this page was opened at. */
function addressOf(jobId: string): string {
  return `${window.location.origin}/jobs/${encodeURIComponent(jobId)}`;
}

/** Whether that address leads to this computer from itself alone. */
const isHere = /^(localhost|127\.[\d.]+|\[::1\])$/.test(window.location.hostname);

/** The paper that goes with the job to its machine: opened to be printed, or saved. */
export function JobSheetPart() {
  const actions = useBenchActions();
  const planned = useBench((state) => planOf(state) !== null);
  const [busy, setBusy] = useState(false);

  /** @returns whether it was made */
  const make = async (use: (blob: Blob) => void): Promise<boolean> => {
    const state = actions.get();
    const { shop, title, pricing, jobId } = state;
    setBusy(true);
    try {
      const wish = { title, madeOn: wholeDayAndTimeOf(Date.now()), address: addressOf(jobId), pricing };
      use(await work('jobSheet', [jobOf(state), shop, wish, choiceOf(state)]));
      return true;
    } catch (error) {
      toast.error(t('The job sheet was not made. {{error}}', { error: sentenceOf(error) }));
      return false;
    } finally {
      setBusy(false);
    }
  };
  const print = async () => {
    // Opened at once, for browsers let only a press open a window; the sheet comes into it when it is made.
    const sheet = window.open('', '_blank');
    if (!sheet) {
      toast.error(t('The browser opens no window for the sheet. Allow it for this page, or save the PDF.'));
      return;
    }
    const made = await make((blob) => {
      sheet.location.href = URL.createObjectURL(blob);
    });
    if (!made) sheet.close();
  };
  return (
    <Part title={t('Job sheet')}>
      <div className="flex gap-1.5">
        <Button
          disabled={busy || !planned}
          onClick={() => void print()}
          title={t('Opens it in a window of its own, to be printed')}
        >
          <Printer size={15} aria-hidden />
          {t('Open to print')}
        </Button>
        <Button
          disabled={busy || !planned}
          onClick={() =>
            void make((blob) => download(blob, t('{{title}}, job sheet.pdf', { title: actions.get().title })))
          }
        >
          <Download size={15} aria-hidden />
          {t('Save the sheet')}
        </Button>
      </div>
      <p className="mt-1.5 text-[12px] text-quiet">
        {isHere
          ? t('Its code opens the job at this computer. Phones reach it once Lambent has an address in your network.')
          : t('Its code opens the job on a phone.')}
      </p>
    </Part>
  );
}
