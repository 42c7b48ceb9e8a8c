// A row before its lines are priced: where it stands, what keeps it from it, which ways it can be paid, what it draws.
import { describe, expect, it } from 'vitest'
import type { Component, Estimate } from '../../../../core/estimate/estimate'
import { findKind } from '../../../../core/estimate/components'
import { planRow, variantOf, type Settings } from '../../../../core/estimate/pricing/plan-row'
import type { RateCard } from '../../../../core/ratecard/rate-card'
import { evaluate, type Working } from '../../../../core/working/working'
import { pricesOf, testCard, testEstimate, testRows } from '../../../support/test-card'

const there: RateCard = {
  ...testCard,
  regions: [...testCard.regions, { id: 'bare', name: 'Bare' }],
  prices: [
    ...testCard.prices,
    ...testCard.prices
      .filter(line => line.meter === 'server-hour' && line.variant === 'small')
      .map(line => {
        const { commitments: _, ...onDemand } = line
        return { ...onDemand, sku: 'BARE', region: 'bare' }
      }),
  ],
}
const settings = (more: Partial<Estimate> = {}, card = there): Settings => {
  const estimate = testEstimate([], more)
  return { key: '', monthHours: 730, prices: pricesOf(card), estimate, currency: 'EUR' }
}
const row = (kind: string, inputs: Record<string, string>): Component => testRows([[kind, inputs]])[0]!
const plan = (component: Component, overrides: Record<string, string> = {}, isWished = false, of = settings()) =>
  planRow(component, overrides, of, undefined, isWished)

it('names the place that no card is loaded for, in words where it is where the estimate stands', () => {
  const mend = 'choose another place, or drop the card under Sources'
  const gone = plan(row('disk', { class: 'plain', where: 'Nobody/far' }))
  expect(gone.problems).toEqual({ where: `no rate card is loaded for «Nobody/far»; ${mend}` })
  expect([gone.place, gone.priced, gone.refusal, gone.replaced]).toEqual([null, null, null, []])
  expect(plan(row('disk', { class: 'plain' }), {}, false, settings({ region: 'gone' })).problems).toEqual({
    where: `no rate card is loaded for «Testcloud, gone»; ${mend}`,
  })
  expect(plan(row('spaceship', {})).problems).toEqual({ kind: 'there is no kind of component called «spaceship»' })
})

it('says of what is moved and not offered there which input it lies at, and shows it as it is at home', () => {
  const moved = plan(row('disk', { class: 'plain', storageGb: '9' }), { where: 'bare' })
  expect(Object.keys(moved.problems)).toHaveLength(1)
  const [field, problem] = Object.entries(moved.problems)[0]!
  expect(moved.notOffered).toBeTruthy()
  expect(problem).toBe(`not offered there: ${moved.notOffered}`)
  expect(
    findKind('disk')!
      .fields.map(f => f.name)
      .concat('where'),
  ).toContain(field)
  expect(moved.inputs).toMatchObject({ class: 'plain', storageGb: '9', where: 'bare' })
  expect(moved.place?.region).toBe('bare')
})

it('knows the variant that a row is of its kind by its size or class', () => {
  expect(variantOf(findKind('server')!, { size: 'small' })).toBe('small')
  expect(variantOf(findKind('disk')!, { class: 'plain' })).toBe('plain')
  expect(variantOf(findKind('server')!, {})).toBeNull()
  expect(variantOf(findKind('free-form')!, { amount: '1' })).toBeNull()
})

describe('hours', () => {
  it('beyond what the month has are most often all of them: that is offered', () => {
    const long = plan(row('server', { size: 'small', hoursPerMonth: '731' }))
    expect(Object.keys(long.problems)).toEqual(['hoursPerMonth'])
    expect(long.refusal).toEqual({
      ...{ field: 'hoursPerMonth', reason: long.problems.hoursPerMonth },
      instead: { value: 'always on', label: 'make it always on' },
    })
    expect(plan(row('server', { size: 'small', hoursPerMonth: '730' })).problems).toEqual({})
  })
  it('that are none, or another input that is wrong, have nothing to be offered', () => {
    for (const inputs of [{ hoursPerMonth: 'often' }, { hoursPerMonth: '-1' }, { count: 'many' }] as Record<string, string>[]) {
      const wrong = plan(row('server', { size: 'small', ...inputs }))
      expect(Object.keys(wrong.problems)).toEqual(Object.keys(inputs))
      expect(wrong.refusal).toBeNull()
    }
    // hours that are right beside a count that is wrong
    expect(plan(row('server', { size: 'small', hoursPerMonth: '730', count: 'x' })).refusal).toBeNull()
  })
})

describe('a way to pay', () => {
  const yearly = '1 year, paid monthly'
  it('that is wished for everything holds where it is offered', () => {
    const wished = plan(row('server', { size: 'small', pays: 'on-demand' }), { pays: yearly }, true)
    expect([wished.inputs.pays, wished.priced!.chosen.way]).toEqual([yearly, yearly])
  })
  it('else the row pays as it did, or on-demand where that is not offered either', () => {
    const own = plan(row('server', { size: 'plain', pays: 'on-demand' }), { pays: yearly }, true)
    expect([own.problems, own.inputs.pays, own.priced!.chosen.way]).toEqual([{}, 'on-demand', 'on-demand'])
    const neither = plan(row('server', { size: 'plain', pays: '3 years, all in advance' }), { pays: yearly }, true)
    expect([neither.problems, neither.inputs.pays, neither.priced!.chosen.way]).toEqual([{}, 'on-demand', 'on-demand'])
    const unsaid = plan(row('server', { size: 'plain' }), { pays: yearly }, true)
    expect([unsaid.problems, unsaid.inputs.pays]).toEqual([{}, 'on-demand'])
    const steady = plan(row('server', { size: 'small', pays: '3 years, all in advance' }), { pays: '3 years, part in advance' }, true)
    expect([steady.problems, steady.inputs.pays]).toEqual([{}, '3 years, all in advance'])
  })
  it('that a row asks for itself and does not get is a problem of it', () => {
    const refused = plan(row('server', { size: 'plain', pays: yearly }))
    expect(Object.keys(refused.problems)).toEqual(['pays'])
    expect(refused.priced).toBeNull()
  })
})

it('a currency without a rate is refused before anything is priced, also that of an uplift', () => {
  const of = settings()
  const uplift = {
    ...{ id: 'u', name: 'Care', currency: 'NOK', interval: 'month' as const, validFrom: '2026-01-01', who: 'Ines', setAt: '' },
    charges: [{ label: 'care', by: 'each' as const, amount: '1' }] as never,
    attached: [{ to: 'kind' as const, key: 'server', variant: null }],
  }
  const priced = (currency: string) =>
    plan(row('server', { size: 'small' }), {}, false, { ...of, prices: { ...of.prices, uplifts: [{ ...uplift, currency }] } })
  expect(priced('EUR').problems).toEqual({})
  expect(priced('NOK').problems.where).toContain('no rate from NOK to EUR, which the')
  expect(priced('NOK').refusal).toMatchObject({ give: { rate: 'NOK', to: 'EUR' } })
})

describe('what a row draws', () => {
  it('every charge by itself, under an id of its own', () => {
    const { priced } = plan(row('object-storage', { class: 'ready', storageGb: '10', writes: '1000', reads: '1000' }))
    const ids = priced!.chosen.drawn.map(d => d.id)
    expect(new Set(ids).size).toBe(ids.length)
    expect(priced!.horizon).toBe(0)
  })
  it('month by month where months differ, each line once with what each month draws of it', () => {
    const { priced } = plan(row('object-archive', { class: 'ready', arrivesGb: '70', horizon: '3' }))
    expect(priced!.horizon).toBe(3)
    const monthly = priced!.chosen.drawn.filter(d => Array.isArray(d.quantity))
    expect(monthly.map(d => (d.quantity as readonly Working[]).length)).toEqual(monthly.map(() => 3))
    const stored = monthly.find(d => d.line.meter === 'object-gb-month')!
    const amounts = (stored.quantity as readonly Working[]).map(quantity => evaluate(quantity).toNumber())
    expect(amounts).toEqual([...amounts].sort((a, b) => a - b))
    expect(new Set(monthly.map(d => d.id)).size).toBe(monthly.length)
  })
})
