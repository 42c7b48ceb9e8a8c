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

/** All known codes. */
export const currencies: readonly string[] = [...decimals.keys()].sort()

/** Whether the text is the code of a currency in use. */
export function isCurrency(code: string): boolean {
  return decimals.has(code)
}

/** Decimals of the minor unit (ISO 4217 exponent): 2 for EUR, 0 for JPY, 3 for KWD. Throws for an unknown code. */
export function minorDecimals(code: string): number {
  const found = decimals.get(code)
  if (found === undefined) throw new RangeError(`not an ISO 4217 currency: ${code}`)
  return found
}
