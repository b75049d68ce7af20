const PX = 4;
const WHOLE = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 12, 16];

/** The one scale of spacing and size: step "3" is 12 px of the usual 16 px letter. */
export const STEPS: readonly number[] = [0.5, 1.5, 2.5, 3.5, ...WHOLE].sort((one, other) => one - other);

export const scale: Record<string, { value: string }> = Object.fromEntries(
  STEPS.map((step) => [String(step), { value: `${(step * PX) / 16}rem` }]),
);
