import { describe, expect, it } from 'vitest'
import { allocationPlanSchema, type CentreTree } from '../../../core/allocation/plan'
import { freeIdIn, merged, parentsFor, splitOff, usesOf } from '../../../core/allocation/tree-edits'

const centre = (id: string, parent: string | null = null) => ({ id, name: `Centre ${id}`, parent, owner: 'ines' })
const rule = (id: string, target: string, more = {}) => ({ id, conditions: [{ dimension: 'Tags/team', values: [id] }], target, ...more })
const tree: CentreTree = {
  centres: [centre('top'), centre('sea', 'top'), centre('ferry', 'sea'), centre('land', 'top')],
  pools: [
    { id: 'net', name: 'Network', method: 'shares', shares: { ferry: '1', land: '2' } },
    { id: 'desk', name: 'Desk', method: 'even', among: { of: 'subtree', centre: 'sea' } },
  ],
  rules: [rule('a', 'ferry'), rule('b', 'ferry', { until: '2026-05-01' }), rule('c', 'ferry', { from: '2026-12-01' }), rule('d', 'net')],
}

describe('edits of a tree of cost centres', () => {
  it('make ids of names, each once', () => {
    expect(freeIdIn(tree, 'New Team!')).toBe('new-team')
    expect(freeIdIn(tree, 'Ferry')).toBe('ferry-2')
    expect(freeIdIn(tree, 'Übersee 2')).toBe('übersee-2')
    expect(freeIdIn(tree, ' / ')).toBe('new')
    expect(freeIdIn(tree, 'net')).toBe('net-2')
  })

  it('move one anywhere but below itself', () => {
    expect(parentsFor(tree, 'sea').map(({ id }) => id)).toEqual(['top', 'land'])
    expect(parentsFor(tree, 'top')).toEqual([])
  })

  it('say what speaks of one that is to go', () => {
    expect(usesOf(tree, 'ferry')).toEqual(['3 rules', 'the pool Network'])
    expect(usesOf(tree, 'sea')).toEqual(['1 cost centre below it', 'the pool Desk'])
    expect(usesOf(tree, 'net')).toEqual(['1 rule'])
    expect(usesOf(tree, 'desk')).toEqual([])
    expect(usesOf(tree, 'constructor')).toEqual([])
  })

  it('merge one into another from a day on, and leave what was before', () => {
    let made = 0
    const { centres, rules } = merged(tree, 'ferry', 'land', '2026-11-01', () => `new ${++made}`)
    expect(centres.find(({ id }) => id === 'ferry')).toEqual({ ...centre('ferry', 'sea'), until: '2026-11-01' })
    expect(rules.map(({ id, target, from, until }) => [id, target, from, until])).toEqual([
      ['a', 'ferry', undefined, undefined],
      ['new 1', 'land', '2026-11-01', undefined],
      ['b', 'ferry', undefined, '2026-05-01'],
      ['c', 'ferry', '2026-12-01', undefined],
      ['new 2', 'land', '2026-12-01', undefined],
      ['d', 'net', undefined, undefined],
    ])
    expect(allocationPlanSchema.safeParse({ ...tree, centres, rules }).success).toBe(true)
  })

  it('split a new one off beside another', () => {
    const { centres, rules } = splitOff(tree, 'ferry', 'Night ferry', '2026-11-01')
    expect(centres.map(({ id }) => id)).toEqual(['top', 'sea', 'ferry', 'night-ferry', 'land'])
    expect(centres[3]).toEqual({ id: 'night-ferry', name: 'Night ferry', parent: 'sea', owner: 'ines', from: '2026-11-01' })
    expect(rules).toBe(tree.rules)
  })
})
