/** How the first formats called ways to pay. */
const earlier: Record<string, string> = { none: 'paid monthly', part: 'part in advance', all: 'all in advance' }

/** A way to pay by the name that it has now; other texts stay as they are. */
export function usualWays(text: string): string {
  return text.replace(/^([13] years?), (none|part|all) upfront$/, (_, years: string, upfront: string) => `${years}, ${earlier[upfront]!}`)
}

/** How a commitment is paid, by the name that it has now. */
export const usualPayment = (text: string): string => (Object.hasOwn(earlier, text) ? earlier[text]! : text)
