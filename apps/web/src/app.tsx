import { Announcer } from './ui/announcer.tsx';
import './styles.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { Toaster } from 'sonner';
import { api } from './api.ts';
import { SignInAsked } from './people/sign-in-asked.tsx';
import { takeSession } from './people/take-session.ts';
import { WhoAsked } from './people/who-asked.tsx';
import { loadSmallPlaces, places } from './routes/places.tsx';
import { dropOffPath, isPublicPath } from './routes/public-paths.ts';
import { takeSettings } from './shop/use-settings.ts';
import { catchUpWithServer } from './stores/catch-up.ts';
import { listenToServer } from './stores/live.ts';
import { sayRunEnds } from './stores/run-ends.ts';
import { sayRunNews } from './stores/run-news.ts';
import { useSession } from './stores/session.ts';
import { StorageBar } from './ui/storage-bar.tsx';

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: true } } });
const router = createBrowserRouter(places);

// Members have the drop-off and nothing else: all others are of the shop.
useSession.subscribe(({ person }) => {
  if (person?.role === 'member' && !isPublicPath()) void router.navigate(dropOffPath, { replace: true });
});
if (!isPublicPath()) listenToServer();
sayRunEnds();
sayRunNews();
catchUpWithServer(queries);
// Until it is known, and where it cannot be, the page goes by what is usual.
if (!isPublicPath())
  api
    .settings()
    .then(takeSettings)
    .catch(() => {});
api
  .session()
  .then(takeSession)
  .catch(() => {});
const root = document.getElementById('root');
if (!root) throw new Error('The page has no #root');
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <div className="flex h-full flex-col">
        <StorageBar />
        <Announcer />
        <WhoAsked />
        <SignInAsked />
        <div className="min-h-0 flex-1">
          <RouterProvider router={router} />
        </div>
      </div>
      <Toaster
        position="bottom-center"
        offset={112}
        toastOptions={{ duration: 5000, style: { fontFamily: 'var(--font-sans)' } }}
      />
    </QueryClientProvider>
  </StrictMode>,
);
addEventListener('load', loadSmallPlaces, { once: true });
