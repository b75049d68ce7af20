import { createStore } from "./store";

export type Units = "us" | "metric";

/** Units for display only: exact definitions; inputs are read by the server, which accepts either. */
export const unitsStore = createStore<Units>("kumpan.units", "us", (text) =>
  text === "us" || text === "metric" ? text : undefined,
);

const L_PER_US_GAL = 3.785411784;
const M_PER_FT = 0.3048;
const KM_PER_MILE = 1.609344;
const MM_PER_IN = 25.4;

export function volumeText(liters: number, units: Units): string {
  const value = units === "us" ? liters / L_PER_US_GAL : liters;
  const step = value >= 10000 ? 100 : value >= 1000 ? 10 : 1;
  return `${grouped(Math.round(value / step) * step)} ${units === "us" ? "gal" : "L"}`;
}

/** A pool's water, or what its amounts are for where nobody knows it. */
export function basinText(basin: { volume_l: number; volume_is_unknown: boolean }, units: Units): string {
  const text = volumeText(basin.volume_l, units);
  return basin.volume_is_unknown ? `volume not known, amounts for each ${text}` : text;
}

/** The unit of a temperature that is typed without one. */
export const temperatureUnit = (units: Units) => (units === "us" ? ("f" as const) : ("c" as const));

export function temperatureText(celsius: number, units: Units): string {
  return units === "us" ? `${Math.round((celsius * 9) / 5 + 32)} °F` : `${Math.round(celsius)} °C`;
}

export function lengthText(meters: number, units: Units): string {
  return units === "us" ? `${trimmed(meters / M_PER_FT, 1)} ft` : `${trimmed(meters, 2)} m`;
}

/** A way on the map: miles or kilometers. */
export function distanceText(km: number, units: Units): string {
  return units === "us" ? `${(km / KM_PER_MILE).toFixed(1)} mi` : `${km.toFixed(1)} km`;
}

/** Rain that fell: inches or millimeters. */
export function rainText(mm: number, units: Units): string {
  return units === "us" ? `${(mm / MM_PER_IN).toFixed(1)} in` : `${mm.toFixed(0)} mm`;
}

const THOUSANDS = /\B(?=(\d{3})+(?!\d))/g;

/**
 * Thousands set apart as a US reader has them: "22,400". By hand, since the browser's own way reads all languages'
 * rules first, a tenth of a second before anything is drawn.
 */
export function grouped(value: number): string {
  const [whole = "", part] = String(Math.round(value * 1000) / 1000).split(".");
  return whole.replace(THOUSANDS, ",") + (part === undefined ? "" : `.${part}`);
}

export function trimmed(value: number, digits: number): string {
  return String(Number(value.toFixed(digits)));
}
