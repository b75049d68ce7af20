// The drawn part of a lane, in bands from the left rope; the core puts arrows beyond it.
export const LEFT = -1.75;
export const RIGHT = 2.75;

export function percent(position: number): string {
  return `${((position - LEFT) / (RIGHT - LEFT)) * 100}%`;
}
