import type { Me } from "../api/types";
import type { IconName } from "../components/icons";

export interface Station {
  to: string;
  label: string;
  icon: IconName;
  /** Only this very address is this station. */
  end?: true;
  /** The one letter that leads there. */
  letter?: string;
}

type Role = Me["role"] | undefined;

/** The pool that an address is about, as the start of all addresses of it. */
export function poolOf(pathname: string): string | undefined {
  return pathname.match(/^\/pools\/[0-9a-f-]{36}/)?.[0];
}

/** What is done at a pool: the first four under the thumb, the rest behind "More". */
export function poolStations(base: string, role: Role): Station[] {
  const today: Station = { to: base, label: "Today", icon: "today", end: true, letter: "b" };
  const plan: Station = { to: `${base}/plan`, label: "Plan", icon: "plan", letter: "s" };
  if (role === "guest")
    return [
      today,
      plan,
      { to: `${base}/report`, label: "Report", icon: "log" },
      { to: `${base}/notice`, label: "Notice", icon: "visit" },
    ];
  return [
    today,
    { to: `${base}/test`, label: "Test", icon: "test", letter: "t" },
    plan,
    { to: `${base}/log`, label: "Log", icon: "log", letter: "l" },
    { to: `${base}/visit`, label: "Visit", icon: "visit", letter: "v" },
    { to: `${base}/care`, label: "Care", icon: "care", letter: "c" },
    { to: `${base}/season`, label: "Season", icon: "season", letter: "y" },
    { to: `${base}/setup`, label: "Pool", icon: "pool" },
  ];
}

/** What is done besides one pool, by who may. */
export function houseStations(role: Role): Station[] {
  if (role === undefined || role === "guest") return [];
  const staff = role === "office" || role === "technician";
  const found: (Station | false)[] = [
    { to: "/", label: "Pools", icon: "pools", end: true, letter: "p" },
    staff && { to: "/round", label: "Round", icon: "round", letter: "r" },
    { to: "/shelf", label: "Products", icon: "products", end: true },
    { to: "/practice", label: "Practice", icon: "practice" },
    { to: "/shelf/costs", label: "Costs", icon: "costs" },
    role === "office" && { to: "/files", label: "Files", icon: "files" },
    role === "office" && { to: "/people", label: "People", icon: "people" },
  ];
  return found.filter((one) => one !== false);
}

export const UNDER_THE_THUMB = 4;
