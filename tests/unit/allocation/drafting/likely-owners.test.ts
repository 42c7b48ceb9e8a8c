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

  it('goes by who made it, the one who made most of it, and by what it belongs to', () => {
    const on = (...list: [string | null, string][]) => list.map(([target, amount]) => ({ target, amount }))
    const makers = [
      { by: 'a', made: 2, amounts: on(['freight', '9']) },
      { by: 'constructor', made: 5, amounts: on(['booking', '3'], ['freight', '1'], [null, '50']) },
      { by: 'b', made: 5, amounts: on(['freight', '9']) },
    ]
    // of two that made as many the first by name: 0.7 × 1 of b, not of «constructor» before
    expect(brief(group(null), tree, { ...nothing, makers: makers.slice(0, 2) })).toEqual([['booking', 0.525, ['maker']]])
    expect(brief(group(null), tree, { ...nothing, makers })).toEqual([['freight', 0.7, ['maker']]])
    expect(likelyOwners(group(null), tree, { ...nothing, makers })[0]!.reasons).toEqual([
      { kind: 'maker', weight: 0.7, by: 'b', made: 5, share: 1 },
    ])
    // 0.85 × 0.9
    const attached = { to: 2, amounts: on(['constructor', '9'], ['booking', '1']) }
    expect(brief(group(null), tree, { ...nothing, attached })).toEqual([['constructor', 0.765, ['attached']]])
    // 0.65 × 0.8; the path where it is one
    const within = { paths: ['booking/live'], amounts: on(['booking', '8'], ['freight', '2']) }
    expect(likelyOwners(group(null), tree, { ...nothing, containers: within })[0]).toEqual({
      ...{ target: 'booking', weight: 0.52 },
      reasons: [{ kind: 'container', weight: 0.52, path: 'booking/live', containers: 1, share: 0.8 }],
    })
    expect(likelyOwners(group(null), tree, { ...nothing, containers: { ...within, paths: ['x', 'y'] } })[0]!.reasons[0]).toMatchObject({
      ...{ path: null, containers: 2 },
    })
    // together as independent ones: 1 - 0.3 × 0.15
    expect(brief(group(null), tree, { ...nothing, makers, attached: { to: 1, amounts: on(['freight', '1']) } })).toEqual([
      ['freight', 0.955, ['maker', 'attached']],
    ])
    expect(brief(group(null), tree, { ...nothing, makers: [{ by: 'a', made: 1, amounts: [] }], attached: { to: 1, amounts: [] } })).toEqual(
      [],
    )
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
