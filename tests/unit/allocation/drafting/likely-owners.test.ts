import { describe, expect, it } from 'vitest'
import { likelyOwners, type OwnerEvidence } from '../../../../core/allocation/drafting/likely-owners'

const centre = (id: string, name = id) => ({ id, name, parent: null, owner: null })
const tree = {
  centres: [centre('booking', 'Booking'), centre('freight', 'Freight'), centre('constructor', 'Yard')],
  pools: [{ id: 'net', name: 'Network', method: 'even' as const }],
  rules: [{ id: 'r', conditions: [{ dimension: 'Tags/team', values: ['booking'] }], target: 'booking' }],
}
const nothing: OwnerEvidence = { neighbours: {}, monthBefore: null }
const group = (team: string | null, account = 'live') => ({ values: { SubAccountName: account, 'Tags/team': team } })
const brief = (...asked: Parameters<typeof likelyOwners>) =>
  likelyOwners(...asked).map(({ target, weight, reasons }) => [target, Math.round(weight * 1000) / 1000, reasons.map(({ kind }) => kind)])

describe('who most likely owns what nobody does', () => {
  it('goes by near spellings', () => {
    expect(likelyOwners(group('bookings'), tree, nothing)).toEqual([
      {
        ...{ target: 'booking', weight: expect.closeTo(0.8, 10) },
        reasons: [{ kind: 'spelling', weight: 0.8, dimension: 'Tags/team', value: 'bookings', looksLike: 'booking' }],
      },
    ])
    expect(likelyOwners(group(null, 'x'), tree, nothing)).toEqual([])
  })

  it('goes by who else is in the same account, and by who bore the same names the month before', () => {
    const evidence: OwnerEvidence = {
      // 75 of 100 that are on somebody; what is on nobody and a credit say nothing
      neighbours: {
        SubAccountName: [
          { target: 'freight', amount: '50' },
          { target: 'freight', amount: '25' },
          { target: 'constructor', amount: '25' },
          { target: 'net', amount: '-99' },
          { target: null, amount: '1000' },
        ],
      },
      monthBefore: { names: 3, amounts: [{ target: 'constructor', amount: '9' }, { target: 'freight', amount: '1' }] }, // prettier-ignore
    }
    // 0.9 × 0.9 and 0.6 × 0.75
    expect(brief(group(null), tree, evidence)).toEqual([
      ['constructor', 0.81, ['month before']],
      ['freight', 0.45, ['neighbours']],
    ])
    // a spelling and neighbours together: 1 - 0.2 × (1 - 0.6)
    const alike = { ...nothing, neighbours: { SubAccountName: [{ target: 'booking', amount: '7' }] } }
    expect(brief(group('bookings'), tree, alike)).toEqual([['booking', 0.92, ['spelling', 'neighbours']]])
  })

  it('says nothing of a mixed neighbourhood, of what is on nobody, or of whom the plan does not know', () => {
    const beside = (...list: [string | null, string][]): OwnerEvidence => ({
      ...{ neighbours: { SubAccountName: list.map(([target, amount]) => ({ target, amount })) }, monthBefore: { names: 1, amounts: [] } },
    })
    expect(brief(group(null), tree, beside(['booking', '1'], ['freight', '1'], ['constructor', '1']))).toEqual([])
    expect(brief(group(null), tree, beside([null, '5'], ['freight', '0']))).toEqual([])
    expect(brief(group(null), tree, beside(['gone', '5']))).toEqual([])
    // equal ones stand in the order of their ids; two halves are enough
    expect(brief(group(null), tree, beside(['freight', '1'], ['booking', '1']))).toEqual([['booking', 0.3, ['neighbours']]])
  })
})
