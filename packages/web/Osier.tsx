import { Button } from 'antd';
import { api } from '@osier/contract';
import { lazy, Suspense, useEffect } from 'react';
import { Navigate, Route, Routes } from 'react-router';
import { useApi } from './api/queries';
import { followDrafts, useDrafts } from './shell/drafts';
import { Frame } from './shell/Frame';
import { PersonContext } from './shell/person';
import { followSession } from './shell/session';
import { shellWords as wording } from './shell/words';

const SignIn = lazy(() => import('./shell/SignIn'));
const SignInAgain = lazy(() => import('./shell/SignInAgain'));
const Today = lazy(() => import('./areas/today/Today'));
const Attention = lazy(() => import('./areas/today/Attention'));
const Deliveries = lazy(() => import('./areas/deliveries/Deliveries'));
const Delivery = lazy(() => import('./areas/deliveries/Delivery'));
const DeliveryReport = lazy(() => import('./areas/deliveries/DeliveryReport'));
const Catalogue = lazy(() => import('./areas/catalogue/CatalogueArea'));
const Neighbours = lazy(() => import('./areas/neighbours/NeighboursArea'));
const Headings = lazy(() => import('./areas/headings/Headings'));
const Copies = lazy(() => import('./areas/copies/Copies'));
const Withdrawals = lazy(() => import('./areas/withdrawals/Withdrawals'));
const Stocktake = lazy(() => import('./areas/stocktake/StocktakeArea'));
const StocktakeReport = lazy(() => import('./areas/stocktake/Report'));
const Walk = lazy(() => import('./areas/stocktake/Walk'));
const Daybook = lazy(() => import('./areas/daybook/Daybook'));
const SetUp = lazy(() => import('./areas/setup/SetUp'));

/** Signed in: the frame with its areas. Else: the sign-in. */
export function Osier() {
  const { data: welcome, error } = useApi(api.people.welcome);
  useEffect(followDrafts, []);
  const person = welcome?.person?.id;
  useEffect(() => (person === undefined ? undefined : followSession(person)), [person]);
  if (error)
    return (
      <p role="alert" style={{ padding: 24 }}>
        {error.message}{' '}
        <Button type="text" size="small" onClick={() => window.location.reload()}>
          {wording.tryAgain}
        </Button>
      </p>
    );
  if (!welcome) return null;
  if (!welcome.person)
    return (
      <Suspense fallback={null}>
        <SignIn welcome={welcome} />
      </Suspense>
    );
  useDrafts.getState().open(welcome.person.id);
  return (
    <PersonContext value={welcome.person}>
      <Routes>
        <Route element={<Frame />}>
          <Route path="/today" element={<Today />} />
          <Route path="/today/attention" element={<Attention />} />
          <Route path="/deliveries" element={<Deliveries />} />
          <Route path="/deliveries/:id" element={<Delivery />} />
          <Route path="/deliveries/:id/report" element={<DeliveryReport />} />
          <Route path="/catalogue/:id?" element={<Catalogue />} />
          <Route path="/neighbours" element={<Neighbours />} />
          <Route path="/headings/:id?" element={<Headings />} />
          <Route path="/copies/:id?" element={<Copies />} />
          <Route path="/withdrawals/:id?" element={<Withdrawals />} />
          <Route path="/stocktake/:id?" element={<Stocktake />} />
          <Route path="/stocktake/:id/walk" element={<Walk />} />
          <Route path="/stocktake/:id/report" element={<StocktakeReport />} />
          <Route path="/daybook/:id?" element={<Daybook />} />
          <Route path="/set-up" element={<SetUp />} />
          <Route path="*" element={<Navigate to="/today" replace />} />
        </Route>
      </Routes>
      <Suspense fallback={null}>
        <SignInAgain isDemo={welcome.demo !== null} />
      </Suspense>
    </PersonContext>
  );
}
