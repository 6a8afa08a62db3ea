import { useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { Notice } from '../ui/notice.tsx';
import { t } from '../words/words.ts';

/** Says that one looks around in the demo shop, and ends it. */
export default function DemoBar() {
  const [isAsked, ask] = useState(false);
  const [isLeaving, setLeaving] = useState(false);
  const leave = async () => {
    setLeaving(true);
    try {
      await api.leaveDemo();
      // Everything that the page knows is of another shop from now on.
      location.assign('/');
    } catch (error) {
      setLeaving(false);
      toast.error(sentenceOf(error));
    }
  };
  return (
    <div className="mb-4">
      <Notice
        level="notes"
        title={t('This is the demo shop. Its machines are simulated, and everything in it is made up.')}
      >
        {isAsked ? (
          <>
            <p className="mb-2">
              {t('The demo shop goes, with everything that you made in it. A backup of it is kept in the data folder.')}
            </p>
            <div className="flex gap-2">
              <Button look="danger" disabled={isLeaving} onClick={() => void leave()}>
                {isLeaving ? t('Leaving…') : t('Leave it and begin my own shop')}
              </Button>
              <Button onClick={() => ask(false)}>{t('Stay')}</Button>
            </div>
          </>
        ) : (
          <Button className="mt-1.5" onClick={() => ask(true)}>
            {t('Begin my own shop…')}
          </Button>
        )}
      </Notice>
    </div>
  );
}
