const STEPS = [1, 2, 2.5, 5, 10];

/** Round ticks around two values, from below the least to above the most; never below zero, and no finer than `finest`. */
export function roundExtent(least: number, most: number, finest = 0): number[] {
  const wanted = Math.max((most - least) / 4, finest, 1e-6);
  const power = 10 ** Math.floor(Math.log10(wanted));
  const step = (STEPS.find((candidate) => candidate * power >= wanted * 0.999) ?? 10) * power;
  const first = Math.max(0, Math.floor(least / step));
  const last = Math.max(first + 1, Math.ceil(most / step));
  return Array.from({ length: last - first + 1 }, (_, index) =>
    Number(((first + index) * step).toPrecision(12)),
  );
}
