/** A number and its unit stay on one line. */
export function unbroken(text: string): string {
  return text.replaceAll(/(\d|[¼½¾⅓⅔]) (fl )?(oz|lb|gal|g|kg|mL|L|%|ppm)/g, (amount) =>
    amount.replaceAll(" ", "\u00a0"),
  );
}

/** With a full stop, and not with two. */
export function ended(text: string): string {
  return text.endsWith(".") ? text : `${text}.`;
}
