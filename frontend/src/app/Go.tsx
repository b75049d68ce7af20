import { Navigate, useParams } from "react-router";
import { lastPoolStore } from "../lib/lastPool";

const WHERE: Record<string, string> = { test: "/test", today: "" };

/** A shortcut of the home screen: to the pool that was open last, or to the pools. */
export function Go() {
  const { what = "" } = useParams();
  const pool = lastPoolStore.get();
  return <Navigate replace to={pool === "" ? "/" : `/pools/${pool}${WHERE[what] ?? ""}`} />;
}
