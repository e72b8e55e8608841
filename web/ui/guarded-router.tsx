import { useLayoutEffect, useMemo, useState, type ReactNode } from 'react';
import { Router, UNSAFE_createBrowserHistory as createBrowserHistory, type Navigator } from 'react-router';

/** Says whether the screen may be left now; if not, it may call `go` later to leave it after all. */
type LeaveGuard = (go: () => void) => boolean;

let guard: LeaveGuard | null = null;

/** Has every way to another screen ask first; gives a function that ends that. The browser’s own way back cannot be asked. */
export function guardLeaving(mayLeave: LeaveGuard): () => void {
  guard = mayLeave;
  return () => {
    if (guard === mayLeave) guard = null;
  };
}

/** The router, whose ways lead through the guard. The one that has its own blocking brings four times as much along with it. */
export function GuardedRouter({ children }: { readonly children: ReactNode }) {
  const [history] = useState(() => createBrowserHistory({ v5Compat: true }));
  const [{ location, action }, setPlace] = useState({ location: history.location, action: history.action });
  useLayoutEffect(
    () => history.listen(({ location: now, action: how }) => setPlace({ location: now, action: how })),
    [history],
  );
  const navigator = useMemo((): Navigator => {
    const asked = (go: () => void) => {
      if (!guard || guard(go)) go();
    };
    return {
      createHref: (to) => history.createHref(to),
      go: (delta) => history.go(delta),
      push: (to, state) => asked(() => history.push(to, state)),
      replace: (to, state) => asked(() => history.replace(to, state)),
    };
  }, [history]);
  return (
    <Router location={location} navigationType={action} navigator={navigator}>
      {children}
    </Router>
  );
}
