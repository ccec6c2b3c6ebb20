import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { meQuery } from './api/queries.ts';
import { DeskScreen } from './desk/desk-screen.tsx';
import { ForThoseWhoMay } from './frame/for-those-who-may.tsx';
import { Frame } from './frame/frame.tsx';
import { NotHere } from './frame/not-here.tsx';
import { ScreenFault } from './frame/screen-fault.tsx';

const ClipScreen = lazy(async () => ({ default: (await import('./clip/clip-screen.tsx')).ClipScreen }));
const OwnPassword = lazy(async () => ({ default: (await import('./me/own-password.tsx')).OwnPassword }));
const SignIn = lazy(async () => ({ default: (await import('./sign-in/sign-in.tsx')).SignIn }));

// The Desk comes with the first load; every other screen is fetched when it is opened.
const router = createBrowserRouter([
  {
    element: <Frame />,
    hydrateFallbackElement: null,
    children: [
      {
        // A screen that fails says so in its place; the frame round it stays.
        errorElement: <ScreenFault />,
        children: [
          { path: '/', element: <DeskScreen /> },
          {
            path: '/shelf',
            lazy: async () => ({ Component: (await import('./shelf/shelf-screen.tsx')).ShelfScreen }),
          },
          {
            path: '/shelf/words',
            lazy: async () => ({ Component: (await import('./wording/wording-screen.tsx')).WordingScreen }),
          },
          {
            path: '/shelf/:id/bench',
            lazy: async () => ({ Component: (await import('./bench/bench-screen.tsx')).BenchScreen }),
          },
          {
            path: '/shelf/:id/film',
            lazy: async () => ({ Component: (await import('./film/film-screen.tsx')).FilmScreen }),
          },
          {
            path: '/rules',
            lazy: async () => ({ Component: (await import('./rules/rules-screen.tsx')).RulesScreen }),
          },
          {
            path: '/me',
            lazy: async () => ({ Component: (await import('./me/me-screen.tsx')).MeScreen }),
          },
          {
            element: <ForThoseWhoMay deed="edit-pages" />,
            children: [
              {
                path: '/pages',
                lazy: async () => ({ Component: (await import('./pages/pages-screen.tsx')).PagesScreen }),
              },
              {
                path: '/pages/:id',
                lazy: async () => ({ Component: (await import('./page/page-screen.tsx')).PageScreen }),
              },
              {
                path: '/pages/:id/proof',
                lazy: async () => ({ Component: (await import('./proof/proof-screen.tsx')).ProofScreen }),
              },
              {
                path: '/pages/:id/sent',
                lazy: async () => ({ Component: (await import('./sending/sent-screen.tsx')).SentScreen }),
              },
              {
                path: '/pages/bring-in',
                lazy: async () => ({
                  Component: (await import('./inherited/bring-in-screen.tsx')).BringInScreen,
                }),
              },
              {
                path: '/pages/bring-in/:id',
                lazy: async () => ({
                  Component: (await import('./inherited/inherited-screen.tsx')).InheritedScreen,
                }),
              },
              {
                path: '/pages/new',
                lazy: async () => ({
                  Component: (await import('./pages/new-page-screen.tsx')).NewPageScreen,
                }),
              },
              {
                path: '/embeds',
                lazy: async () => ({ Component: (await import('./embeds/embeds-screen.tsx')).EmbedsScreen }),
              },
            ],
          },
          {
            element: <ForThoseWhoMay deed="set-rules" />,
            children: [
              {
                path: '/report',
                lazy: async () => ({ Component: (await import('./report/report-screen.tsx')).ReportScreen }),
              },
            ],
          },
          {
            element: <ForThoseWhoMay deed="say-rights" />,
            children: [
              {
                path: '/rights',
                lazy: async () => ({ Component: (await import('./rights/rights-screen.tsx')).RightsScreen }),
              },
              {
                path: '/shelf/runs',
                lazy: async () => ({ Component: (await import('./run/runs-screen.tsx')).RunsScreen }),
              },
              {
                path: '/shelf/runs/new',
                lazy: async () => ({ Component: (await import('./run/run-screen.tsx')).RunScreen }),
              },
              {
                path: '/shelf/runs/:id',
                lazy: async () => ({ Component: (await import('./run/running-screen.tsx')).RunningScreen }),
              },
            ],
          },
          {
            element: <ForThoseWhoMay deed="gather" />,
            children: [
              {
                path: '/gather',
                lazy: async () => ({ Component: (await import('./gather/gather-screen.tsx')).GatherScreen }),
              },
            ],
          },
          { path: '*', element: <NotHere /> },
        ],
      },
    ],
  },
]);

export function App() {
  return (
    <Suspense>
      <WhoIsHere />
    </Suspense>
  );
}

/** Every control in every state, while the product is worked on; the build leaves it out. */
const Gallery = import.meta.env.DEV ? lazy(() => import('./gallery/gallery.tsx')) : null;

function WhoIsHere() {
  const me = useQuery(meQuery);
  if (Gallery && window.location.pathname === '/ui') return <Gallery />;
  if (me.isPending) return null;
  if (window.location.pathname === '/clip')
    return <ClipScreen isSignedIn={me.data !== null && me.data !== undefined} />;
  if (me.data?.mustChange) return <OwnPassword me={me.data} />;
  return me.data ? <RouterProvider router={router} /> : <SignIn failure={me.error} />;
}
