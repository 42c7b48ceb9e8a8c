import { quotientText, scaled, sizeOf, type Scaled } from './scaled'

/** Digits of a share after its point: a ten-thousandth of a per cent. */
const SHARE_DIGITS = 6

/** What part of a whole an amount is, as decimal text with six digits, rounded half away from zero; null of nothing. */
export const shareOf = (part: Scaled, whole: Scaled): string | null => (whole === 0n ? null : quotientText(part, whole, SHARE_DIGITS))

/** By how much an amount differs from what it was, as a share of the size of that; null where it was nothing. */
export const changeShareOf = (now: Scaled, before: Scaled): string | null => shareOf(now - before, sizeOf(before))

/** The same of decimal texts, as a number to be shown. */
export function changeShare(now: string, before: string): number | null {
  const share = changeShareOf(scaled(now), scaled(before))
  return share === null ? null : Number(share)
}
