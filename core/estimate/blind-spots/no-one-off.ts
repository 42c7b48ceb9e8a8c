import { rowsOf, type BlindSpot } from './blind-spot'

/** Running costs only: no work of people. */
export const noOneOff: BlindSpot = {
  id: 'no-one-off',
  title: 'Nothing for setting it up',
  find(seen) {
    const rows = seen.priced.rows.filter(row => seen.priced.counted.has(row.id) && row.kind!.kind !== 'free-form')
    if (rows.length < 3 || rowsOf(seen, 'free-form').some(row => row.inputs.interval === 'once')) return null
    return {
      reason: "moving data, setting up and training take people's time before the first month; twenty days are taken here",
      fix: { add: { part: 'Setting up', kind: 'free-form', inputs: { what: 'work to set it up', amount: '12000', interval: 'once' } } },
    }
  },
}
