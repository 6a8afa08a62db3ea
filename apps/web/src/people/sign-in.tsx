import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { SignInDto } from '@lambent/contracts';
import { api } from '../api.ts';
import { useWho } from '../stores/who.ts';
import { Button } from '../ui/button.tsx';
import { useCheckedForm, WordsInput } from '../ui/form.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';

/** Asks for name and password. It stays until they are right: nothing else can be done here. */
export default function SignIn() {
  const { control, handleSubmit, formState } = useCheckedForm(SignInDto, { name: useWho(), password: '' });
  const [send, trouble] = useSent(async (who: SignInDto) => {
    await api.signIn(who);
    // All that could not be asked for is asked for anew; what was drawn is kept in the browser.
    window.location.reload();
  });
  return (
    <Dialog open onClose={() => {}} className="relative z-50">
      <div className="fixed inset-0 flex items-center justify-center bg-table p-4">
        <DialogPanel className="w-80 rounded-xl border border-line bg-paper p-5 shadow-float">
          <img src="/mark.svg" alt="" className="mb-3 size-9" />
          <DialogTitle className="mb-3 text-[17px] font-bold">{t('Sign in')}</DialogTitle>
          <form aria-label={t('Sign in')} className="flex flex-col gap-3" onSubmit={handleSubmit(send)}>
            <WordsInput control={control} name="name" label={t('Your name')} maxLength={120} />
            <WordsInput control={control} name="password" label={t('Password')} type="password" maxLength={200} />
            {trouble}
            <Button type="submit" look="main" disabled={formState.isSubmitting}>
              {t('Sign in')}
            </Button>
          </form>
          <p className="mt-3 text-[12px] text-quiet">
            {t('If you have no password yet, ask the manager of the shop for a link.')}
          </p>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
