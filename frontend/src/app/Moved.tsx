import { Navigate, useLocation, useParams } from "react-router";

/** An address of before: on to today's, with all that was asked in it. */
export function Moved({ to }: { to: string }) {
  const { poolId = "" } = useParams();
  const { search, hash } = useLocation();
  return <Navigate replace to={`/pools/${poolId}${to}${search}${hash}`} />;
}
