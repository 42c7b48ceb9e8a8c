import { hasRow, partOf, type BlindSpot } from './blind-spot'

/** Provider rows, but nobody to ask. */
export const noSupport: BlindSpot = {
  id: 'no-support',
  title: 'No support plan',
  find(seen) {
    const offered = seen.priced.rows.filter(
      row => seen.priced.counted.has(row.id) && row.place?.card.prices.some(line => line.meter === 'support-share'),
    )
    if (!offered.length || hasRow(seen, 'support')) return null
    return {
      reason: 'a plan costs a share of the month and has a least charge; most organisations hold one',
      fix: { add: { part: partOf(seen, offered.at(-1)!), kind: 'support', inputs: {} } },
    }
  },
}
