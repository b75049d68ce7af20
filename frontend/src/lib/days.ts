/** "Mon, Jun 8" of a calendar day like 2026-06-08, which has no hour and no zone; another year is named. */
export function dayText(day: string): string {
  const otherYear = day.slice(0, 4) !== String(new Date().getFullYear());
  return new Intl.DateTimeFormat("en-US", {
    ...(otherYear ? { year: "numeric" } : { weekday: "short" }),
    month: "short",
    day: "numeric",
    timeZone: "UTC",
  }).format(new Date(`${day}T12:00:00Z`));
}

/** The calendar day so many days after another. */
export function daysAfter(day: string, days: number): string {
  const at = new Date(`${day}T12:00:00Z`);
  at.setUTCDate(at.getUTCDate() + days);
  return at.toISOString().slice(0, 10);
}
