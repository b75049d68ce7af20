import type { ReactNode } from "react";

/** Our own pictograms: one family, 2 px strokes on a grid of 24, always beside a word. */
const DRAWN = {
  // Where one goes.
  today: <path d="M4 11.5 12 4l8 7.5V20H4z" />,
  test: <path d="M9.5 3h5M10.5 3v6L5 19.2c-.4.9.2 1.8 1.2 1.8h11.6c1 0 1.6-.9 1.2-1.8L13.5 9V3M7.6 15h8.8" />,
  plan: <path d="M5 3v18M5 6h12M5 12h8M5 18h14" />,
  log: <path d="M4 3v18h17M8 16l4-5 3 3 5-7" />,
  more: (
    <g fill="currentColor" stroke="none">
      <circle cx="5" cy="12" r="2.2" />
      <circle cx="12" cy="12" r="2.2" />
      <circle cx="19" cy="12" r="2.2" />
    </g>
  ),
  pools: (
    <path d="M3 8c0-3 3-4 6-4h6c3 0 6 1 6 4v3c0 3-3 4-6 4H9c-3 0-6-1-6-4zM4 19c2.5-1.6 5-1.6 8 0s5.5 1.6 8 0" />
  ),
  round: (
    <path d="M6 20a2 2 0 1 1 0-4 2 2 0 0 1 0 4zM18 8a2 2 0 1 1 0-4 2 2 0 0 1 0 4zM8 18h7a3.5 3.5 0 0 0 0-7H9a3 3 0 0 1 0-5h7" />
  ),
  products: <path d="M9 3h6v4l2.5 3V21h-11V10L9 7zM6.5 13h11v5h-11" />,
  care: <path d="M12 8V3M12 3h5M8 8h8l1 4H7zM8 12v9M12 12v9M16 12v9" />,
  season: <path d="M4 6h16v15H4zM4 10.500h16M8 3v5M16 3v5M8 15h3M13.5 15h3" />,
  pool: <path d="M4 19V5h9a7 7 0 0 1 0 14zM8 9v6M8 12h6" />,
  costs: <path d="M4 7h16v12H4zM4 11h16M8 15h4" />,
  files: <path d="M12 3v11M8 10l4 4 4-4M4 15v5h16v-5" />,
  people: (
    <path d="M9 11a3.5 3.5 0 1 0 0-7 3.5 3.5 0 0 0 0 7zM3 20c0-3.5 2.5-5.5 6-5.500s6 2 6 5.500M16 5a3 3 0 0 1 0 6M17 14.500c2.5.5 4 2.300 4 5.5" />
  ),
  practice: <path d="M12 4 2 9l10 5 10-5zM6 11.500V17c3.5 2.5 8.5 2.5 12 0v-5.500M22 9v6" />,
  account: <path d="M12 12a4 4 0 1 0 0-8 4 4 0 0 0 0 8zM4 21c0-4 3.5-6 8-6s8 2 8 6" />,
  find: <path d="M10.5 17a6.5 6.5 0 1 0 0-13 6.5 6.5 0 0 0 0 13zM15.5 15.5 21 21" />,
  help: (
    <path d="M12 21a9 9 0 1 0 0-18 9 9 0 0 0 0 18zM9.5 9.500c0-3.5 5-3.5 5 0 0 2-2.5 2-2.5 4.300M12 17v.5" />
  ),
  emergency: <path d="M12 3 2.5 20h19zM12 9v5M12 17v.5" />,
  visit: (
    <path d="M5 4h14v17H5zM9 4V2.500h6V4M8.5 10l1.5 1.5 2.5-3M8.5 16l1.5 1.5 2.5-3M15 11h1.500M15 17h1.5" />
  ),
  // What a step is done with, and what must not be.
  goggles: <path d="M3 8h18v5c0 2-1.5 3-3.5 3S14 14.5 13.5 13h-3C10 14.5 8.5 16 6.5 16S3 15 3 13z" />,
  gloves: (
    <path d="M8 21v-4l-2.5-5.5 1.800-.8L9 13V5a1.300 1.300 0 0 1 2.600 0v5-6a1.300 1.300 0 0 1 2.600 0v6-4.5a1.300 1.300 0 0 1 2.600 0V13c0 2-.8 3-.8 4.500V21z" />
  ),
  wind: <path d="M3 9h11a2.5 2.5 0 1 0-2.5-2.500M3 13h15a2.5 2.5 0 1 1-2.5 2.500M3 17h7a2 2 0 1 1-2 2" />,
  apart: <path d="M5 5l14 14M19 5 5 19" />,
  skimmer: <path d="M4 8h16v8H4zM4 12h10M3 3l18 18" />,
  into_water: (
    <path d="M8 3h8v5l-2 4h-4L8 8zM3 17c2.5-1.6 5-1.6 9 0s6.5 1.6 9 0M3 21c2.5-1.6 5-1.6 9 0s6.5 1.6 9 0" />
  ),
  out: (
    <path d="M4 20c2.5-1.6 5-1.6 8 0s5.5 1.6 8 0M8 15l3-4 4 2M12.5 7.5a1.800 1.800 0 1 0 0-3.600 1.800 1.800 0 0 0 0 3.600zM3 3l18 18" />
  ),
  pump: <path d="M9 19a6 6 0 1 0 0-12 6 6 0 0 0 0 12zM9 7h11v4h-5M4 21h10" />,
  label: <path d="M4 4h9l7 8-7 8H4zM8 9h3M8 15h3M8 12h6" />,
  slowly: <path d="M12 21a8 8 0 1 0 0-16 8 8 0 0 0 0 16zM12 9v4.500l3 2M9 2.500h6" />,
  lock: <path d="M5 11h14v10H5zM8 11V8a4 4 0 0 1 8 0v3M12 15v2.5" />,
  power: <path d="M12 3v8M7 6.5a7.5 7.5 0 1 0 10 0M3 3l18 18" />,
  dust: <path d="M5 9h14l-1 7c-1.5 3-10.5 3-12 0zM5 9 3 7M19 9l2-2M8.5 13h7" />,
} satisfies Record<string, ReactNode>;

export type IconName = keyof typeof DRAWN;

export function isIcon(name: string): name is IconName {
  return name in DRAWN;
}

export function Icon({ name, size = 24 }: { name: IconName; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 24 24"
      fill="none"
      stroke="currentColor"
      strokeWidth="2"
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden="true"
      style={{ flexShrink: 0 }}
    >
      {DRAWN[name]}
    </svg>
  );
}
