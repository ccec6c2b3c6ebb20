import { useQuery } from '@tanstack/react-query';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { meQuery } from './api/queries.ts';
import { DeskScreen } from './desk/desk-screen.tsx';
import { Frame } from './frame/frame.tsx';
import { NotHere } from './frame/not-here.tsx';
import { PageScreen } from './page/page-screen.tsx';
import { NewPageScreen } from './pages/new-page-screen.tsx';
import { PagesScreen } from './pages/pages-screen.tsx';
import { ProofScreen } from './proof/proof-screen.tsx';
import { RulesScreen } from './rules/rules-screen.tsx';
import { ShelfScreen } from './shelf/shelf-screen.tsx';
import { SignIn } from './sign-in/sign-in.tsx';

const router = createBrowserRouter([
  {
    element: <Frame />,
    children: [
      { path: '/', element: <DeskScreen /> },
      { path: '/pages', element: <PagesScreen /> },
      { path: '/pages/new', element: <NewPageScreen /> },
      { path: '/pages/:id', element: <PageScreen /> },
      { path: '/pages/:id/proof', element: <ProofScreen /> },
      { path: '/shelf', element: <ShelfScreen /> },
      { path: '/rules', element: <RulesScreen /> },
      { path: '*', element: <NotHere /> },
    ],
  },
]);

export function App() {
  const me = useQuery(meQuery);
  if (me.isPending) return null;
  return me.data ? <RouterProvider router={router} /> : <SignIn failure={me.error} />;
}
