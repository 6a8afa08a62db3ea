import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { leaveWhoOpen } from '../stores/who.ts';
import { Button } from '../ui/button.tsx';
import { t } from '../words/words.ts';
import { People } from './people.tsx';

/** Asks once who is at this screen; closed, what waited for it is not done. */
export default function WhoDialog() {
  return (
    <Dialog open onClose={leaveWhoOpen} className="relative z-50">
      <div className="fixed inset-0 flex items-center justify-center bg-slate/35 p-4">
        <DialogPanel className="w-80 rounded-xl border border-line bg-paper p-4 shadow-float">
          <DialogTitle className="mb-2 text-[15px] font-bold">{t('Who is at this screen?')}</DialogTitle>
          <People />
          <div className="mt-3 flex justify-end">
            <Button onClick={leaveWhoOpen}>{t('Not now')}</Button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
