import { roundText } from '../../core/money/amount-text'
import { scaled } from '../../core/money/scaled'
import { decimals, money, numberFormat, trueMinus } from '../../shared/words/amounts'
import { LOCALE } from '../../core/text/locale'

/** A difference to the minor unit with its sign, `+12.00` or `−3.40`; a dash for none. */
export function signedMoney(amount: string, currency: string, none = '–'): string {
  if (Number(amount) === 0) return none
  return `${Number(amount) > 0 ? '+' : ''}${money(roundText(amount), currency)}`
}

/** How an amount that should be small is marked: more is bad, less is good, none is neither. */
export const toneOf = (amount: string): 'bad' | 'good' | '' => (Number(amount) > 0 ? 'bad' : Number(amount) < 0 ? 'good' : '')

/** An amount in whole units, for charts, Steps and lists. */
export function whole(amount: string): string {
  return decimals(amount, 0)
}

/** The currency's sign where it is a single one, else its code. */
export function currencySign(currency: string): string {
  const part =
    numberFormat(`c${currency}`, { style: 'currency', currency, currencyDisplay: 'narrowSymbol' })
      .formatToParts(0)
      .find(p => p.type === 'currency')?.value ?? currency
  return part.length > 1 ? currency : part
}

/** Every digit of a price. */
export function fullPrice(text: string): string {
  return trueMinus(numberFormat('p', { minimumFractionDigits: 2, maximumFractionDigits: 15 }).format(text as `${number}`))
}

/** A share in percent with one decimal; a dash when it is not defined. */
export function percent(part: string, of: string): string {
  const all = scaled(of)
  if (all === 0n) return '–'
  return `${trueMinus(numberFormat('%', { minimumFractionDigits: 1, maximumFractionDigits: 1 }).format(Number((scaled(part) * 1000000n) / all) / 10000))} %`
}

export { changeShare } from '../../core/money/share'

const timeFormat = new Intl.DateTimeFormat(LOCALE, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

/** When something was done, in the reader's own time. */
export const timeText = (instant: string) =>
  timeFormat.format(new Date(instant.includes(' ') ? instant.replace(' ', 'T').replace(/\+00$/, 'Z') : instant))

/** `1.2 MB` */
export function bytesText(bytes: number): string {
  const units = ['B', 'kB', 'MB', 'GB']
  const power = bytes > 0 ? Math.min(units.length - 1, Math.floor(Math.log10(bytes) / 3)) : 0
  return `${numberFormat(`b${power > 0}`, { maximumFractionDigits: power > 0 ? 1 : 0 }).format(bytes / 1000 ** power)} ${units[power]}`
}

/** A share as percent with its sign: `−27.4 %`. */
export const percentText = (share: number) =>
  `${share > 0 ? '+' : ''}${trueMinus(numberFormat('%', { minimumFractionDigits: 1, maximumFractionDigits: 1 }).format(share * 100))} %`

export const count = (n: number) => numberFormat('n', {}).format(n)

/** A ratio that is reckoned in floats, such as a likelihood, as a percentage. */
export const ratioText = (ratio: number): string =>
  `${trueMinus(numberFormat('whole %', { maximumFractionDigits: 0 }).format(ratio * 100))} %`
