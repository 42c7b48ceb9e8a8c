/** What the figures of someone with a bound are of, such as «only Fleet and what lies below». @param within names of cost centres. */
export const withinSaid = (within: readonly string[]): string =>
  within.length ? `only ${within.join(', ')} and what lies below` : 'no cost centre'
