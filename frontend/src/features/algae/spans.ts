import type { RescueBoard } from "../../api/types";
import { dayText } from "../../lib/days";

type Span = RescueBoard["clear"];

/** "likely Tue, Jun 9, between Sun, Jun 7 and Sat, Jun 13": a band of days in words. */
export function spanText({ low, likely, high }: Span): string {
  if (low === high) return `on ${dayText(likely)}`;
  return `likely ${dayText(likely)}, between ${dayText(low)} and ${dayText(high)}`;
}

/** "$12 to $30", or "not told" where a price is missing. */
export function moneyText(range: readonly number[] | null, currency: string): string {
  if (range === null || range.length === 0) return "no price on the shelf";
  const low = range[0] ?? 0;
  const high = range[range.length - 1] ?? low;
  const told = (value: number) => `${currency}${value.toFixed(0)}`;
  return told(low) === told(high) ? told(low) : `${told(low)} to ${told(high)}`;
}

/** "2 to 5 days". */
export function daysText(range: readonly number[]): string {
  const low = Math.round(range[0] ?? 0);
  const high = Math.round(range[range.length - 1] ?? low);
  if (low === high) return low === 1 ? "1 day" : `${low} days`;
  return `${low} to ${high} days`;
}
