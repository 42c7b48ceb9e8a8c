import type { Day } from '../time/day'

// ISO 4217 codes of currencies in use, by the number of decimals of their minor unit. Two decimals unless listed otherwise.
const TWO =
  'AED AFN ALL AMD AOA ARS AUD AWG AZN BAM BBD BDT BMD BND BOB BRL BSD BTN BWP BYN BZD CAD CDF CHE CHF CHW CNY COP CRC CUP CVE CZK DKK DOP DZD EGP ERN ETB EUR FJD FKP GBP GEL GHS GIP GMD GTQ GYD HKD HNL HTG HUF IDR ILS INR IRR JMD KES KGS KHR KPW KYD KZT LAK LBP LKR LRD LSL MAD MDL MGA MKD MMK MNT MOP MRU MUR MVR MWK MXN MYR MZN NAD NGN NIO NOK NPR NZD PAB PEN PGK PHP PKR PLN QAR RON RSD RUB SAR SBD SCR SDG SEK SGD SHP SLE SOS SRD SSP STN SVC SYP SZL THB TJS TMT TOP TRY TTD TWD TZS UAH USD UYU UZS VED VES WST XCD XCG YER ZAR ZMW ZWG BOV COU MXV USN'
const ZERO = 'BIF CLP DJF GNF ISK JPY KMF KRW PYG RWF UGX UYI VND VUV XAF XOF XPF'
const THREE = 'BHD IQD JOD KWD LYD OMR TND'
const FOUR = 'CLF UYW'

const decimals = new Map<string, number>([
  ...TWO.split(' ').map(code => [code, 2] as const),
  ...ZERO.split(' ').map(code => [code, 0] as const),
  ...THREE.split(' ').map(code => [code, 3] as const),
  ...FOUR.split(' ').map(code => [code, 4] as const),
])

/**
 * Codes that have been in use since 2000 and are no longer, or are only since a day: decimals, the first day and the day after the last.
 * Recalled from memory; where the old and the new circulated together, both hold.
 */
const PERIODS: [code: string, decimals: number, from: Day | null, until: Day | null][] = [
  ['ANG', 2, null, '2025-07-01'],
  ['BGN', 2, null, '2026-01-01'],
  ['BYN', 2, '2016-07-01', null],
  ['BYR', 0, null, '2017-01-01'],
  ['CUC', 2, null, '2021-07-01'],
  ['CYP', 2, null, '2008-01-01'],
  ['EEK', 2, null, '2011-01-01'],
  ['GHC', 2, null, '2008-01-01'],
  ['GHS', 2, '2007-07-01', null],
  ['HRK', 2, null, '2023-01-01'],
  ['LTL', 2, null, '2015-01-01'],
  ['LVL', 2, null, '2014-01-01'],
  ['MRO', 2, null, '2018-07-01'],
  ['MRU', 2, '2018-01-01', null],
  ['MTL', 2, null, '2008-01-01'],
  ['MZM', 2, null, '2007-01-01'],
  ['MZN', 2, '2006-07-01', null],
  ['SIT', 2, null, '2007-01-01'],
  ['SKK', 2, null, '2009-01-01'],
  ['SLE', 2, '2022-07-01', null],
  ['SLL', 2, null, '2024-04-01'],
  ['SSP', 2, '2011-07-18', null],
  ['STD', 2, null, '2018-07-01'],
  ['STN', 2, '2018-01-01', null],
  ['TRL', 0, null, '2006-01-01'],
  ['TRY', 2, '2005-01-01', null],
  ['VEB', 2, null, '2008-07-01'],
  ['VED', 2, '2021-10-01', null],
  ['VEF', 2, '2008-01-01', '2018-12-01'],
  ['VES', 2, '2018-08-20', null],
  ['XCG', 2, '2025-03-31', null],
  ['ZMK', 2, null, '2013-07-01'],
  ['ZMW', 2, '2013-01-01', null],
  ['ZWG', 2, '2024-04-05', null],
  ['ZWL', 2, '2009-02-02', '2024-09-01'],
]
const periods = new Map(PERIODS.map(([code, , from, until]) => [code, { from, until }]))
const withdrawn = new Map(PERIODS.flatMap(([code, decimals, , until]) => (until === null ? [] : [[code, decimals] as const])))

/** All codes in use. */
export const currencies: readonly string[] = [...decimals.keys()].sort()

/** Whether the text is the code of a currency in use. */
export function isCurrency(code: string): boolean {
  return decimals.has(code)
}

/** Whether the text is the code of a currency that was in use since 2000, now or then. */
export const wasCurrency = (code: string): boolean => decimals.has(code) || withdrawn.has(code)

/** The first day on which a currency was in use and the day after the last; null for no bound. */
export const currencyPeriod = (code: string): { from: Day | null; until: Day | null } => periods.get(code) ?? { from: null, until: null }

/** Whether the text is the code of a currency that was in use on a day. */
export function isCurrencyOn(code: string, day: Day): boolean {
  const { from, until } = currencyPeriod(code)
  return wasCurrency(code) && (from === null || day >= from) && (until === null || day < until)
}

/** Decimals of the minor unit (ISO 4217 exponent): 2 for EUR, 0 for JPY, 3 for KWD. Throws for an unknown code. */
export function minorDecimals(code: string): number {
  const found = decimals.get(code) ?? withdrawn.get(code)
  if (found === undefined) throw new RangeError(`not an ISO 4217 currency: ${code}`)
  return found
}
