import fc from 'fast-check'
import { expect, it } from 'vitest'
import { scaled, scaledText, type Scaled } from '../../../core/money/scaled'
import { EXACT, EXACT_ROWS, highLimb, lowLimb } from '../../../core/spend/limbs'
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
