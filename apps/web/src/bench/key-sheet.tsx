import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { Fragment } from 'react';
import { Button } from '../ui/button.tsx';
import { shortcuts } from './shortcuts.ts';

/** The keys, on one sheet. */
export function KeySheet({ open, close }: { open: boolean; close: () => void }) {
  return (
    <Dialog open={open} onClose={close} className="relative z-40">
      <div className="fixed inset-0 flex items-center justify-center bg-ink/20 p-6">
        <DialogPanel className="w-[440px] rounded-xl border border-line bg-paper p-5 shadow-float">
          <DialogTitle className="mb-3 text-[16px] font-bold">Keys</DialogTitle>
          <dl className="mb-4 grid grid-cols-[150px_1fr] gap-y-1.5">
            {Object.values(shortcuts).map(({ keys, does }) => (
              <Fragment key={keys}>
                {does !== null && (
                  <>
                    <dt className="figures text-[12.5px]">{keys}</dt>
                    <dd>{does}</dd>
                  </>
                )}
              </Fragment>
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
