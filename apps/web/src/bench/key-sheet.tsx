import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { Button } from '../ui/button.tsx';
import { keySheet } from './use-shortcuts.ts';

/** The keys, on one sheet. */
export function KeySheet({ open, close }: { open: boolean; close: () => void }) {
  return (
    <Dialog open={open} onClose={close} className="relative z-40">
      <div className="fixed inset-0 flex items-center justify-center bg-ink/20 p-6">
        <DialogPanel className="w-[440px] rounded-xl border border-line bg-paper p-5 shadow-float">
          <DialogTitle className="mb-3 text-[16px] font-bold">Keys</DialogTitle>
          <dl className="mb-4 grid grid-cols-[150px_1fr] gap-y-1.5">
            {keySheet.map(({ keys, does }) => (
              <div key={keys} className="contents">
                <dt className="figures text-[12.5px]">{keys}</dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
          <Button look="main" onClick={close}>
            Close
          </Button>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
