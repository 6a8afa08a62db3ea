import { useLive } from '../stores/live.ts';
import { t } from '../words/words.ts';

/** Over every place while the server cannot keep what it is sent: since when, and what to do. */
export function StorageBar() {
  const storage = useLive((live) => live.storage);
  if (storage.ok) return null;
  return (
    <p role="alert" className="shrink-0 bg-stop px-4 py-2 text-center font-semibold text-white">
      {t('{{message}} What you draw is kept in this browser until then.', { message: storage.message })}
    </p>
  );
}
