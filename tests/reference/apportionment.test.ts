import { expect, it } from 'vitest'
import { apportion } from '../../core/money/apportion'

// First census of the United States, 1790, and the 120 seats that Hamilton's method gives, as published with the veto of 1792
// (Balinski and Young, Fair Representation). Recalled from memory; both columns add up to their published totals.
const census: [state: string, population: bigint, seats: bigint][] = [
  ['Connecticut', 236_841n, 8n],
  ['Delaware', 55_540n, 2n],
  ['Georgia', 70_835n, 2n],
  ['Kentucky', 68_705n, 2n],
  ['Maryland', 278_514n, 9n],
  ['Massachusetts', 475_327n, 16n],
  ['New Hampshire', 141_822n, 5n],
  ['New Jersey', 179_570n, 6n],
  ['New York', 331_589n, 11n],
  ['North Carolina', 353_523n, 12n],
  ['Pennsylvania', 432_879n, 14n],
  ['Rhode Island', 68_446n, 2n],
  ['South Carolina', 206_236n, 7n],
  ['Vermont', 85_533n, 3n],
  ['Virginia', 630_560n, 21n],
]

it('gives the states the seats that Hamilton gave them', () => {
  expect(census.reduce((n, [, population]) => n + population, 0n)).toBe(3_615_920n)
  expect(
    apportion(
      120n,
      census.map(([, population]) => population),
    ),
  ).toEqual(census.map(([, , seats]) => seats))
})
