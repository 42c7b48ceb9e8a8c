import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { componentKinds, findKind } from '../../../core/estimate/components'
import { fieldProblem, type Field } from '../../../core/estimate/components/field'
import { rowDetails } from '../../../core/estimate/documents/document-parts'
import { newEstimate, newRow } from '../../../core/estimate/estimate'
import { inputText } from '../../../core/estimate/sheet/input-text'
import { numberText } from '../../../core/estimate/sheet/number-text'
import { priceEstimate } from '../../../core/estimate/pricing/price-estimate'
import { keptText, readTyped, storedText } from '../../../core/estimate/sheet/typed-text'
import { Decimal } from '../../../core/money/decimal'
import { brackwaterCard } from '../../../demo/rate-cards'
import { pricesOf } from '../../support/test-card'

const field = (kind: string, name: string): Field => findKind(kind)!.fields.find(f => f.name === name)!
const [gb, calls, seconds, hours, count, millions, percent, mb] = [
  field('object-storage', 'storageGb'),
  field('functions', 'calls'),
  field('functions', 'seconds'),
  field('server', 'hoursPerMonth'),
  field('server', 'count'),
  field('disk', 'transactions'),
  field('snapshot', 'changePercent'),
  field('object-storage', 'objectMb'),
]

describe('reads what people write', () => {
  it.each([
    [gb, '2,000', '2000'],
    [gb, '1,500 GB', '1500'],
    [gb, '1 TB', '1000'],
    [gb, '0.5 TB', '500'],
    [gb, '500 MB', '0.5'],
    [gb, '2 PB', '2000000'],
    [gb, '1 500', '1500'],
    [gb, '1\u202F500.25 gb', '1500.25'],
    [gb, '12.5', '12.5'],
    [gb, '1.5 tb', '1500'],
    [gb, '0.125', '0.125'],
    [gb, '1.1250', '1.1250'.replace(/0$/, '')],
    [gb, '1e3', '1000'],
    [gb, '3 million GB', '3000000'],
    [seconds, '600 ms', '0.6'],
    [seconds, '2 min', '120'],
    [calls, '1 M', '1000000'],
    [calls, '100 k', '100000'],
    [calls, '1 million', '1000000'],
    [calls, '2.5 bn', '2500000000'],
    [calls, '1,234,567', '1234567'],
    [count, '3', '3'],
    [millions, '2', '2'],
    [millions, '500 k', '0.5'],
    [millions, '1.5 M', '1.5'],
    [millions, '2 million', '2'],
    [percent, '4 %', '4'],
    [mb, '2 GB', '2000'],
    [gb, '650..895..1100', '650..895..1100'],
    [gb, '650-895-1,100', '650..895..1100'],
    [gb, '650 - 895 - 1100 GB', '650..895..1100'],
    [gb, '0.5 – 1 – 2 TB', '500..1000..2000'],
    [gb, '500 MB - 1 GB - 2 GB', '0.5..1..2'],
    [calls, '20 to 36 to 60 M', '20000000..36000000..60000000'],
    [hours, '5d x 10h', '5d x 10h'],
    [hours, '5 days × 10 hours', '5d x 10h'],
    [hours, '10h x 5d', '5d x 10h'],
    [hours, '12 hours on 5 days', '5d x 12h'],
    [hours, 'always on', 'always on'],
    [hours, '24/7', 'always on'],
    [hours, '55%', '55 %'],
    [hours, '40-50-60 %', '40..50..60 %'],
    [hours, '300 h', '300'],
    [hours, '30 min', '0.5'],
  ] as [Field, string, string][])('%o: «%s» is %s', (of, text, value) => {
    expect(readTyped(of, text)).toEqual({ value })
  })
})

describe('refuses what it does not understand, with the sentence that mends it', () => {
  it.each([
    [gb, '1.500', '1.5 or 1,500'],
    [gb, '12.345', '12.3450 or 12,345'],
    [gb, '10 20', 'two numbers'],
    [gb, '2,5', 'write 2.5'],
    [gb, '1,50,000', 'groups of three'],
    [gb, '1.500.000', '1,500,000'],
    [gb, '0,500', 'write 0.500'],
    [gb, '500 M', '500 MB'],
    [gb, '10 furlongs', '«furlongs» is no unit'],
    [gb, '5..9', 'three numbers'],
    [gb, '9..5..7', 'in this order'],
    [gb, 'lots', 'no number'],
    [gb, '', 'no number'],
    [count, '3 km', 'without «km»'],
    [hours, '8d x 10h', 'up to 7 days'],
    [hours, '5d x 25h', '24 hours'],
    [hours, 'often', '5d x 10h'],
    [seconds, '3 GB', '«GB» is no unit'],
  ] as [Field, string, string][])('%o: «%s» says %s', (of, text, words) => {
    const read = readTyped(of, text)
    expect('problem' in read ? read.problem : `read as ${read.value}`).toContain(words)
    // nothing typed is lost, and the row says the same
    expect(keptText(of, text).replace(/ \?$/, '')).toBe(text)
    expect(fieldProblem(of, keptText(of, text), brackwaterCard, 'low-coast', 730)).toContain(words)
  })
})

const decimal = fc
  .tuple(fc.integer({ min: 0, max: 2_000_000_000 }), fc.integer({ min: 0, max: 6 }))
  .map(([n, digits]) => new Decimal(n).div(new Decimal(10).pow(digits)))
const fields = componentKinds.flatMap(kind => kind.fields.filter(f => f.type === 'number' || f.type === 'hours'))

it('takes back what sheet, panels, CSV and PDF print for a value, as the same value', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...fields),
      decimal,
      decimal,
      decimal,
      fc.constantFrom('one', 'range', 'percent', 'week', 'always'),
      (of, a, b, c, shape) => {
        const [low, likely, high] = [a, b, c].sort((x, y) => x.cmp(y)) as [Decimal, Decimal, Decimal]
        const number = numberText(
          shape === 'range' ? { low, likely, high, isRange: !low.eq(high) } : { low: a, likely: a, high: a, isRange: false },
        )
        const stored =
          of.type === 'hours'
            ? shape === 'week'
              ? `${a.mod(8).round(0, 0).toFixed()}d x ${b.mod(25).round(0, 0).toFixed()}h`
              : shape === 'always'
                ? 'always on'
                : shape === 'percent'
                  ? `${number} %`
                  : number
            : number
        expect(readTyped(of, inputText(of, stored)), inputText(of, stored)).toEqual({ value: stored })
        expect('problem' in readTyped(of, stored) ? storedText(of, stored) : stored).toBe(stored)
      },
    ),
    { numRuns: 600 },
  )
})

it('takes back the details that documents print', () => {
  const component = newRow('a', 'p', 'object-storage', {
    class: 'ready',
    storageGb: '2875',
    writes: '1250000',
    reads: '1000..2000..12500',
    objectMb: '1.125',
  })
  const row = priceEstimate({ ...newEstimate('t', brackwaterCard, 'low-coast'), components: [component] }, pricesOf(brackwaterCard))
    .rows[0]!
  const details = rowDetails(component, row).split(' · ')
  for (const [name, stored] of Object.entries(component.inputs)) {
    const of = field('object-storage', name)
    if (of.type !== 'number') continue
    const printed = details.find(text => text.startsWith(`${of.label} `))!.slice(of.label.length + 1)
    expect(readTyped(of, printed), printed).toEqual({ value: stored })
  }
})

it('prices a file that has words where numbers are meant as it prices the numbers', () => {
  const price = (storageGb: string) =>
    priceEstimate(
      { ...newEstimate('t', brackwaterCard, 'low-coast'), components: [newRow('a', 'p', 'object-storage', { class: 'cool', storageGb })] },
      pricesOf(brackwaterCard),
    )
  expect(price('1.5 TB').total.monthly).toEqual(price('1500').total.monthly)
  expect(price('1.5 xB').unpriced).toBe(1)
})
