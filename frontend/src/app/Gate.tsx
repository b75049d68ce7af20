import { useQuery } from "@tanstack/react-query";
import { lazy, type ReactNode, Suspense, useEffect } from "react";
import { useLocation } from "react-router";
import { authQuery } from "../api/accountQueries";
import { Trouble } from "../api/client";
import { Failed, Loading } from "../components/States";
import { personStore } from "../lib/person";
import { driverStore } from "../lib/round";

// Who is signed in already never loads it.
const SignInPage = lazy(async () => ({
  default: (await import("../features/account/SignInPage")).SignInPage,
}));

/** Open to everybody: what must be read in an emergency, and what lets somebody in. */
const OPEN = ["/emergency", "/join/", "/share/", "/guest/", "/unsubscribe/"];

/** Shows the page to who is signed in, and the way in to everybody else. */
export function Gate({ children }: { children: ReactNode }) {
  const { pathname } = useLocation();
  const auth = useQuery(authQuery());
  const me = auth.data?.me;
  useEffect(() => {
    if (me === undefined) return;
    personStore.set(me?.id ?? "");
    if (me?.role === "technician") driverStore.set(me.id ?? "");
  }, [me]);
  if (OPEN.some((start) => pathname.startsWith(start))) return children;
  if (auth.isPending) return <Loading what="who you are" />;
  if (auth.isError) {
    // Without the server nobody can be asked; the page shows what this device keeps.
    const unreachable = auth.error instanceof Trouble && auth.error.status === 0;
    return unreachable ? children : <Failed error={auth.error} again={() => void auth.refetch()} />;
  }
  if (me) return children;
  return (
    <Suspense fallback={<Loading what="the way in" />}>
      <SignInPage state={auth.data} />
    </Suspense>
  );
}
