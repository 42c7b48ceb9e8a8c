import fc from 'fast-check'
import { expect, it } from 'vitest'
import { scaled, scaledText, type Scaled } from '../../../core/money/scaled'
import { EXACT, EXACT_ROWS, highLimb, lowLimb } from '../../../core/money/limbs'
import { limbsText, Sums } from '../../../core/spend/sums'

const CELLS = 5
/** Amounts of every size: everyday ones, those at the edges of a limb, and beyond two limbs. */
const amount = fc.oneof(
  fc.bigInt({ min: -(10n ** 20n), max: 10n ** 20n }),
  fc.constantFrom(0n, 1n, -1n, 999_999_999n, 10n ** 9n, -(10n ** 9n)),
  fc.bigInt({ min: -(10n ** 31n), max: 10n ** 31n }),
  fc.constantFrom(BigInt(EXACT) * 10n ** 9n, BigInt(EXACT - 1) * 10n ** 9n, -BigInt(EXACT) * 10n ** 9n),
)
const cell = fc.integer({ min: 0, max: CELLS - 1 })
type Step = { do: 'pass' | 'scaled' | 'add' | 'gather'; cell: number; from: number; amount: Scaled }
const step: fc.Arbitrary<Step> = fc.record({ do: fc.constantFrom('pass', 'scaled', 'add', 'gather'), cell, from: cell, amount })

/** Adds an amount as a pass over rows does: announced, limb by limb. */
function pass(sums: Sums, at: number, amount: Scaled): void {
  const [high, low] = [highLimb(amount), lowLimb(amount)]
  if (Math.abs(high) >= EXACT / 2) return sums.addScaled(at, amount)
  sums.reserve(1, Math.abs(high))
  sums.high[at]! += high
  sums.low[at]! += low
}

it('is exact whatever is added in whatever way', () => {
  fc.assert(
    fc.property(fc.array(amount, { minLength: CELLS, maxLength: CELLS }), fc.array(step, { maxLength: 40 }), (first, steps) => {
      const [sums, other] = [new Sums(CELLS), new Sums(CELLS)]
      const model = new Array<Scaled>(CELLS).fill(0n)
      first.forEach((value, at) => other.set(at, value))
      // charges are passed over before sums are gathered
      const inOrder = [
        ...steps.filter(one => one.do === 'pass' || one.do === 'scaled'),
        ...steps.filter(one => one.do === 'add' || one.do === 'gather'),
      ]
      for (const { do: what, cell: at, from, amount: value } of inOrder) {
        if (what === 'pass') pass(sums, at, value)
        else if (what === 'scaled') sums.addScaled(at, value)
        else if (what === 'add') sums.add(at, other, from)
        else sums.gather([at, from], other, [from, at])
        model[at]! += what === 'add' || what === 'gather' ? first[from]! : value
        if (what === 'gather') model[from]! += first[at]!
      }
      const cells = Uint32Array.from(model, (_, at) => at)
      const near = sums.near(cells)
      model.forEach((value, at) => {
        expect(sums.total(at)).toBe(value)
        expect(sums.text(at)).toBe(scaledText(value))
        expect(Math.abs(near[at]! - Number(value) / 1e15)).toBeLessThanOrEqual(1e-6 * (Math.abs(Number(value)) / 1e15 + 1e10))
        model.forEach((second, b) => {
          if (sums.seenEqual(at, b)) expect(value).toBe(second)
        })
      })
    }),
    { numRuns: 1000 },
  )
})

it('carries before a float could lose a unit, however long the run', () => {
  const largest = 2 ** 40
  const run = Sums.run(largest)
  expect(run).toBe(2 ** 13 - 1) // the largest that stays below 2⁵³
  expect([Sums.run(0), Sums.run(1), Sums.run(EXACT), Sums.run(2 ** 52)]).toEqual([EXACT_ROWS, EXACT_ROWS, 1, 1])
  const sums = new Sums(1)
  let rows = 0n
  for (let i = 0; i < 5; i++) {
    sums.reserve(run, largest)
    for (let row = 0; row < run; row++) {
      sums.high[0]! += largest
      sums.low[0]! += 999_999_999
      rows++
    }
  }
  expect(sums.total(0)).toBe(rows * (BigInt(largest) * 10n ** 9n + 999_999_999n))
  // what was carried keeps its place in orders and comparisons
  expect(sums.near(Uint32Array.of(0))[0]).toBeCloseTo(Number(rows) * (largest / 1e6), -3)
  expect(sums.seenEqual(0, 0)).toBe(false)
})

it('grows without losing anything', () => {
  const sums = new Sums(2)
  sums.set(1, scaled('2.5'))
  sums.grow(2)
  expect(sums.high).toHaveLength(2)
  sums.grow(3)
  expect(sums.high).toHaveLength(4) // twice as many, so that growing one by one costs little
  sums.grow(9)
  expect([sums.high.length, sums.low.length, sums.total(1), sums.total(8)]).toEqual([9, 9, scaled('2.5'), 0n])
})

it('sees equal sums, and takes near ones apart', () => {
  const sums = new Sums(3)
  sums.set(0, scaled('1.000000000000001'))
  sums.set(1, scaled('1.000000000000001'))
  sums.set(2, scaled('1.000000000000002'))
  expect([sums.seenEqual(0, 1), sums.seenEqual(0, 2)]).toEqual([true, false])
  sums.set(2, scaled('1.000001000000001'))
  expect(sums.seenEqual(0, 2)).toBe(false)
  const same = new Sums(2)
  same.addScaled(0, 5n)
  expect([same.seenEqual(0, 1), same.seenEqual(1, 0)]).toEqual([false, false])
})

it('writes limbs as the amount they are', () => {
  fc.assert(
    fc.property(
      fc.oneof(fc.integer({ min: -2_000_000_000, max: 2_000_000_000 }), fc.maxSafeInteger()),
      fc.oneof(fc.integer({ min: -2_000_000_000, max: 2_000_000_000 }), fc.constant(0), fc.maxSafeInteger()),
      (high, low) => {
        expect(limbsText(high, low)).toBe(scaledText(BigInt(high) * 10n ** 9n + BigInt(low)))
      },
    ),
    { numRuns: 3000 },
  )
  expect([limbsText(0, 0), limbsText(-1, 1_000_000_000), limbsText(1e15, 0), limbsText(-1e15, 0), limbsText(10_000_000, 0)]).toEqual([
    '0',
    '0',
    '1000000000',
    '-1000000000',
    '10',
  ])
})

it('carries what has been summed before a run could take a float beyond 53 bits, of either limb', () => {
  // three times an odd number of 2⁵² and a bit: the sum is odd and beyond 2⁵³, where a float knows even numbers only
  const high = new Sums(2)
  const large = 2 ** 52 + 1
  for (let run = 0; run < 3; run++) {
    high.reserve(1, large)
    high.high[1]! += large
  }
  expect(high.total(1)).toBe(3n * BigInt(large) * 10n ** 9n)
  // as many rows as low limbs may be added of, and again, with an odd sum
  const low = new Sums(1)
  const rows = EXACT_ROWS - 1
  for (let run = 0; run < 3; run++) {
    low.reserve(rows, 0)
    low.low[0]! += rows * 999_999_999 - (run === 1 ? 1 : 0)
  }
  expect(low.total(0)).toBe(3n * BigInt(rows) * 999_999_999n - 1n)
})

it('adds and gathers low limbs beyond 53 bits exactly', () => {
  const [one, other] = [new Sums(1), new Sums(1)]
  const almost = EXACT - 1
  one.low[0] = almost
  other.low[0] = almost - 1
  one.add(0, other, 0)
  expect(one.total(0)).toBe(BigInt(almost) * 2n - 1n)
  const gathered = new Sums(1)
  gathered.low[0] = almost
  const from = new Sums(1)
  from.low[0] = almost - 1
  gathered.gather([0], from, [0])
  expect(gathered.total(0)).toBe(BigInt(almost) * 2n - 1n)
})

it('is near the exact sum with both limbs, and with what is carried', () => {
  const sums = new Sums(3)
  sums.high[0] = 2_000_000
  sums.low[0] = 500_000_000
  sums.low[1] = -250_000_000
  sums.addScaled(2, scaled('90071992547409930000000000'))
  const [first, second, third] = sums.near(Uint32Array.of(0, 1, 2))
  expect([first, second]).toEqual([2.0000005, -0.00000025])
  expect(Math.abs(third! / 9.007199254740992e25 - 1)).toBeLessThan(1e-15)
})
