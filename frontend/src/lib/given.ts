/** What a field showed when its form was opened, and the exact value behind the rounded text. */
export interface Given {
  shown: string;
  exact: string;
}

/** The exact value where the field still shows it; else what was typed. A form saved unchanged changes nothing. */
export function asGiven(text: string, given: Given | undefined): string {
  return given !== undefined && given.shown === text ? given.exact : text;
}
