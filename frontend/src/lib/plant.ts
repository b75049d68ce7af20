import { trimmed, type Units } from "./units";

const KPA_PER_PSI = 6.894757293168361;
const L_PER_US_GAL = 3.785411784;

/** For display only; what is typed is read by the server. */
export function pressureText(kpa: number, units: Units): string {
  return units === "us" ? `${Math.round(kpa / KPA_PER_PSI)} psi` : `${(kpa / 100).toFixed(2)} bar`;
}

export function flowText(litersPerMinute: number, units: Units): string {
  return units === "us"
    ? `${Math.round(litersPerMinute / L_PER_US_GAL)} gpm`
    : `${Math.round(litersPerMinute)} L/min`;
}

/** A minute of the day as a reader has it: "6:30 AM". */
export function minuteClock(minute: number): string {
  const hours = Math.floor(minute / 60) % 24;
  return `${((hours + 11) % 12) + 1}:${String(minute % 60).padStart(2, "0")} ${hours < 12 ? "AM" : "PM"}`;
}

/** A minute of the day as a time field holds it: "06:30". */
export function minuteText(minute: number): string {
  const hours = Math.floor(minute / 60) % 24;
  return `${String(hours).padStart(2, "0")}:${String(minute % 60).padStart(2, "0")}`;
}

export function hoursText(hours: number): string {
  return `${trimmed(hours, 1)} h`;
}

const ML_PER_FL_OZ = 29.5735295625;

export function liquidText(milliliters: number, units: Units): string {
  if (units === "metric") return `${Math.round(milliliters / 5) * 5} mL`;
  return `${trimmed(milliliters / ML_PER_FL_OZ, milliliters < 1000 ? 1 : 0)} fl oz`;
}
