import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Rule } from '../../../core/allocation/plan'
import { asksOf, ruleChange } from '../../../core/allocation/rule-change'
import { ruleCoding, ruleCodingInSlices } from '../../../core/allocation/rule-coding'
import type { Cube } from '../../../core/spend/cube'
import { rowCodes, type Coding } from '../../../core/spend/layers'
import { emptyReference } from '../../../core/spend/reference'
import { toEnd } from '../../../core/spend/slices'
import { cubeOf, plainCharge, type PlainCharge } from '../../support/random-charges'
import { randomRule } from '../../support/random-rules'

/** Which rule each charge has, by its id. */
const idsOf = (cube: Cube, { values, layers }: Coding) =>
  [...cube.segmentsByMonth()].flatMap(of => Array.from({ length: of.segment.rows }, (_, row) => values[rowCodes(layers, of)(row)]))

/** What is done to a list of rules. */
type Edit = { at: number; to: number; rule: Rule; does: 'add' | 'take out' | 'change' | 'move' | 'twice' }
const edit: fc.Arbitrary<Edit> = fc.record({
  at: fc.nat(80),
  to: fc.nat(80),
  rule: randomRule,
  does: fc.constantFrom('add', 'take out', 'change', 'move', 'twice'),
})
function edited(rules: readonly Rule[], { at, to, rule, does }: Edit): Rule[] {
  const made = [...rules]
  const place = made.length ? at % made.length : 0
  if (does === 'add' || !made.length) made.splice(at % (made.length + 1), 0, rule)
  else if (does === 'take out') made.splice(place, 1)
  else if (does === 'change') made[place] = rule
  else if (does === 'twice') made.splice(to % (made.length + 1), 0, { ...made[place]!, id: rule.id })
  else made.splice(to % made.length, 0, ...made.splice(place, 1))
  return made
}

describe('rules that have changed a little', () => {
  it('catch what they would catch if nothing had been known of those before, one change after the other', () => {
    fc.assert(
      fc.property(
        fc.array(plainCharge, { maxLength: 30 }),
        fc.array(randomRule, { maxLength: 70 }),
        fc.array(fc.array(edit, { maxLength: 3 }), { minLength: 1, maxLength: 4 }),
        (charges, first, steps) => {
          const cube = cubeOf(charges)
          let rules: Rule[] = first
          for (const edits of [[], ...steps]) {
            rules = edits.reduce(edited, rules)
            expect(idsOf(cube, toEnd(ruleCodingInSlices(rules, cube)))).toEqual(idsOf(cube, ruleCoding(rules, cube)))
          }
        },
      ),
      { numRuns: 300 },
    )
  })

  it('are asked anew where what they look at has changed meanwhile', () => {
    const charge = (team: string): PlainCharge => ({
      ...{ day: '2026-09-05', hour: 0, currency: 'EUR', amount: '1', values: {}, tags: { team } },
    })
    const rules: Rule[] = ['a', 'b', 'c'].map(team => ({ id: team, conditions: [{ dimension: 'Tags/team', values: [team] }], target: 'x' }))
    const cube = cubeOf([charge('a'), charge('b')])
    expect(idsOf(cube, toEnd(ruleCodingInSlices(rules, cube)))).toEqual(['a', 'b'])
    cube.setReference({ ...emptyReference, aliases: { 'Tags/team': { a: 'c' } } })
    expect(idsOf(cube, toEnd(ruleCodingInSlices(rules, cube)))).toEqual(['c', 'b'])
    cube.setReference(emptyReference)
    expect(idsOf(cube, toEnd(ruleCodingInSlices([rules[1]!, rules[0]!], cube)))).toEqual(['a', 'b'])
  })
})

describe('how a list of rules came of another', () => {
  const change = (before: string, after: string) => {
    const { now, added } = ruleChange([...before], [...after])
    return [[...now], added]
  }
  it('keeps as many as can be in their order', () => {
    expect(change('abcd', 'abcd')).toEqual([[0, 1, 2, 3], []])
    expect(change('abcd', 'xabcd')).toEqual([[1, 2, 3, 4], [0]])
    expect(change('abcd', 'acd')).toEqual([[0, -1, 1, 2], []])
    expect(change('abcd', 'abxd')).toEqual([[0, 1, -1, 3], [2]])
    // the last is moved to the front: one moves, three stay
    expect(change('abcd', 'dabc')).toEqual([[1, 2, 3, -1], [0]])
    expect(
      change('abcd', 'dcba')
        .flat()
        .filter(place => typeof place === 'number' && place >= 0),
    ).toHaveLength(4)
    expect(change('', 'ab')).toEqual([[], [0, 1]])
    expect(change('ab', '')).toEqual([[-1, -1], []])
  })

  it('takes the first of two that ask the same for the new one', () => {
    expect(change('abc', 'cabc')).toEqual([[1, 2, 3], [0]])
    expect(change('aa', 'a')).toEqual([[-1, 0], []])
  })

  it('does not look at what rules put charges on, but at their days', () => {
    const rule: Rule = { id: '1', conditions: [{ dimension: 'ServiceName', values: ['x'] }], target: 'a' }
    expect(asksOf({ ...rule, id: '2', target: 'b' })).toBe(asksOf(rule))
    expect(asksOf({ ...rule, from: '2026-01-01' })).not.toBe(asksOf(rule))
    expect(asksOf({ ...rule, until: '2026-01-01' })).not.toBe(asksOf({ ...rule, from: '2026-01-01' }))
  })
})
