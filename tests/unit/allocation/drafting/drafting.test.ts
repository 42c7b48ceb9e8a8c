// What helps one to write a rule: what tells a group apart, where it likely belongs, and what is doubtful about a rule.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { groupConditions } from '../../../../core/allocation/drafting/group-conditions'
import { likelyTarget } from '../../../../core/allocation/drafting/likely-target'
import { ruleDoubts, type KnownValues } from '../../../../core/allocation/drafting/rule-doubts'
import type { Condition } from '../../../../core/allocation/condition'
import type { Rule } from '../../../../core/allocation/plan'

const group = (SubAccountName: string | null, team: string | null, app: string | null = null) => ({
  values: { SubAccountName, 'Tags/team': team, 'Tags/app': app },
})
const said = (conditions: { dimension: string; values: (string | null)[] }[]) =>
  conditions.map(({ dimension, values }) => `${dimension}=${values.join()}`)

describe('what tells a group apart', () => {
  const queue = [
    group('live', 'bookng'),
    group('live', null),
    group('live', null, 'tickets'),
    group('test', null),
    group('test', 'bookng'),
    group(null, null),
  ]
  const of = (place: number) => said(groupConditions(queue[place]!.values, queue))
  it('is a tag where that is enough, whatever its key', () => {
    expect(of(2)).toEqual(['Tags/app=tickets'])
  })
  it('is what else it has where others have the tag too, and what it lacks where nothing else tells', () => {
    expect(of(0)).toEqual(['Tags/team=bookng', 'SubAccountName=live'])
    expect(of(1)).toEqual(['SubAccountName=live', 'Tags/team=', 'Tags/app='])
    expect(of(3)).toEqual(['SubAccountName=test', 'Tags/team='])
    expect(of(5)).toEqual(['SubAccountName='])
  })
  it('is one condition for a group that is alone', () => {
    expect(said(groupConditions(group('live', 'a').values, [group('live', 'a')]))).toEqual(['Tags/team=a'])
  })
  it('always fits the group and no other, and no condition could be left out from its end', () => {
    const value = fc.option(fc.constantFrom('a', 'b', 'constructor'), { nil: null })
    const groups = fc.uniqueArray(fc.record({ SubAccountName: value, 'Tags/team': value, 'Tags/app': value }), {
      minLength: 1,
      maxLength: 12,
      selector: values => JSON.stringify(values),
    })
    const fits = (values: Record<string, string | null>, conditions: { dimension: string; values: (string | null)[] }[]) =>
      conditions.every(one => one.values.includes(values[one.dimension]!))
    fc.assert(
      fc.property(groups, list => {
        const all = list.map(values => ({ values }))
        for (const { values } of all) {
          const conditions = groupConditions(values, all)
          expect(all.filter(other => fits(other.values, conditions))).toEqual([{ values }])
          if (conditions.length > 1) expect(all.filter(other => fits(other.values, conditions.slice(0, -1))).length).toBeGreaterThan(1)
        }
      }),
    )
  })
})

const rule = (id: string, target: string, conditions: Condition[], more: Partial<Rule> = {}): Rule => ({ id, target, conditions, ...more })
const is = (dimension: string, ...values: (string | null)[]): Condition => ({ dimension, values })

describe('where a group likely belongs', () => {
  const plan = {
    centres: [
      { id: 'bk', name: 'Booking', parent: null, owner: null },
      { id: 'maintenance', name: 'Yard', parent: null, owner: null },
      { id: 'p', name: 'Platform', parent: null, owner: null },
    ],
    rules: [
      rule('1', 'p', [is('Tags/team', 'telemetry'), is('SubAccountName', 'test')]),
      rule('2', 'bk', [is('Tags/team', 'ticketing', null, 'crew-roster')]),
      rule('3', 'p', [is('SubAccountName', 'live-fleet')]),
    ],
  }
  it('is where a rule sends what looks like it, by a tag before an account', () => {
    expect(likelyTarget(group('live-fleet', 'Crew Rosters'), plan)).toEqual({
      ...{ target: 'bk', dimension: 'Tags/team', value: 'Crew Rosters', looksLike: 'crew-roster' },
    })
    expect(likelyTarget(group('live_fleet', 'nobody'), plan)).toMatchObject({ target: 'p', looksLike: 'live-fleet' })
  })
  it('is the cost centre that is called so', () => {
    expect(likelyTarget(group(null, 'booking team'), plan)).toMatchObject({ target: 'bk', looksLike: 'Booking' })
    expect(likelyTarget(group(null, 'maintenence'), plan)).toMatchObject({ target: 'maintenance', looksLike: 'Yard' })
  })
  it('is nowhere where nothing looks alike: a rule of two conditions says more than its value', () => {
    expect(likelyTarget(group('other', 'telemetry'), plan)).toBeNull()
    expect(likelyTarget(group(null, null), plan)).toBeNull()
    // a rule that goes nowhere yet, such as the one being written
    const begun = { ...plan, rules: [rule('new', '', [is('Tags/team', 'alone')])] }
    expect(likelyTarget(group(null, 'alone'), begun)).toBeNull()
  })
})

describe('doubts about rules', () => {
  const known: KnownValues = {
    tags: ['Tags/team'],
    values: dimension => (dimension === 'Tags/team' ? new Set(['booking', 'crew-1', null]) : undefined),
  }
  const doubts = (...rules: Rule[]) => Object.fromEntries(ruleDoubts(rules, known))
  it('a tag that nothing has, a value that nothing has, a pattern that nothing fits', () => {
    expect(
      doubts(
        rule('tag', 'x', [is('Tags/owner', 'a')]),
        rule('value', 'x', [is('Tags/team', 'booking', 'bokking', null)]),
        rule('pattern', 'x', [{ dimension: 'Tags/team', pattern: 'fleet-*' }]),
        rule('fits', 'x', [{ dimension: 'Tags/team', pattern: 'CREW-*' }]),
        rule('unknown', 'x', [is('RegionId', 'nowhere')]),
        rule('amount', 'x', [{ measure: 'billedCost', below: '0' }]),
      ),
    ).toEqual({
      tag: [{ kind: 'unknown-tag', dimension: 'Tags/owner' }],
      value: [{ kind: 'no-value', dimension: 'Tags/team', values: ['bokking'] }],
      pattern: [{ kind: 'no-value', dimension: 'Tags/team', values: ['fleet-*'] }],
    })
  })
  const shadow = (wide: Condition[], narrow: Condition[], days: [Partial<Rule>, Partial<Rule>] = [{}, {}]) =>
    ruleDoubts([rule('w', 'x', wide, days[0]), rule('n', 'x', narrow, days[1])], { tags: [], values: () => undefined })
      .get('n')
      ?.some(({ kind }) => kind === 'shadowed') ?? false
  it('a rule behind one that takes all of it', () => {
    const [a, ab] = [is('RegionId', 'a'), is('RegionId', 'a', 'b')]
    expect(shadow([ab], [a])).toBe(true)
    expect(shadow([a], [a, is('ServiceName', 's')])).toBe(true)
    expect(shadow([a], [ab])).toBe(false)
    expect(shadow([a, is('ServiceName', 's')], [a])).toBe(false)
    expect(shadow([is('ServiceName', 'a')], [a])).toBe(false)
    expect(ruleDoubts([rule('n', 'x', [a]), rule('w', 'x', [ab])], { tags: [], values: () => undefined }).size).toBe(0)
  })
  it('patterns and amounts too, at their edges', () => {
    const like = (pattern: string): Condition => ({ dimension: 'ResourceName', pattern })
    expect(shadow([like('crew-*')], [is('ResourceName', 'Crew-1', 'crew-2')])).toBe(true)
    expect(shadow([like('crew-*')], [is('ResourceName', 'crew-1', null)])).toBe(false)
    expect(shadow([like('crew-*')], [like('CREW-*')])).toBe(true)
    expect(shadow([like('crew-*')], [like('*')])).toBe(false)
    expect(shadow([is('ResourceName', 'a')], [like('a')])).toBe(false)
    const costs = (bounds: { atLeast?: string; below?: string }): Condition => ({ measure: 'billedCost', ...bounds })
    expect(shadow([costs({ atLeast: '10' })], [costs({ atLeast: '10', below: '20' })])).toBe(true)
    expect(shadow([costs({ atLeast: '10' })], [costs({ atLeast: '9.99' })])).toBe(false)
    expect(shadow([costs({ below: '10' })], [costs({ below: '10' })])).toBe(true)
    expect(shadow([costs({ below: '10' })], [costs({ below: '10.01' })])).toBe(false)
    expect(shadow([costs({ below: '10' })], [costs({ atLeast: '1' })])).toBe(false)
    expect(shadow([costs({ below: '10' })], [{ measure: 'listCost', below: '1' }])).toBe(false)
    expect(shadow([costs({ below: '10' })], [is('RegionId', 'a')])).toBe(false)
  })
  it('only over all the days of the later one', () => {
    const a = [is('RegionId', 'a')]
    const from = { from: '2026-10-01' }
    const until = { until: '2026-11-01' }
    expect(shadow(a, a, [from, {}])).toBe(false)
    expect(shadow(a, a, [from, { from: '2026-10-01' }])).toBe(true)
    expect(shadow(a, a, [from, { from: '2026-09-30' }])).toBe(false)
    expect(shadow(a, a, [until, {}])).toBe(false)
    expect(shadow(a, a, [until, { until: '2026-11-01' }])).toBe(true)
    expect(shadow(a, a, [until, { until: '2026-11-02' }])).toBe(false)
    expect(
      shadow(a, a, [
        { from: null, until: null },
        { ...from, ...until },
      ]),
    ).toBe(true)
  })
})
