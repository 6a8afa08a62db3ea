import { isRouteErrorResponse, Link, useRouteError } from 'react-router';
import { PageBar } from '../ui/page-bar.tsx';
import { t } from '../words/words.ts';

/** Where an address leads nowhere, and where a page failed. */
export function LostRoute() {
  const error = useRouteError();
  const failed = error != null && !isRouteErrorResponse(error);
  return (
    <div className="flex h-full flex-col">
      <PageBar />
      <main className="mx-auto mt-24 max-w-md px-6 text-center">
        <h1 className="mb-2 text-xl font-bold">{failed ? t('This page failed') : t('There is nothing here')}</h1>
        <p className="mb-4 text-quiet">
          {failed
            ? t('Your job is kept: every edit is saved as it is made. Load the page again, or go back to the Desk.')
            : t('The address may be mistyped, or the job may have been removed.')}
        </p>
        {failed && (
          <pre className="mb-4 overflow-auto rounded-lg bg-paper p-3 text-left text-[12px]">{String(error)}</pre>
        )}
        <Link to="/" className="font-semibold text-petrol underline">
          {t('To the Desk')}
        </Link>
      </main>
    </div>
  );
}
