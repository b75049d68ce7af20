/** Whether any of these is still on its way: a page that shows all at once does not jump. */
export function coming(...queries: readonly { isLoading: boolean }[]): boolean {
  return queries.some(({ isLoading }) => isLoading);
}
