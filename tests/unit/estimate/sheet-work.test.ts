// What people do in the sheet: pasting, doubles, helpers, defaults, patterns.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { findAssumptions } from '../../../core/estimate/documents/assumptions'
import { findKind } from '../../../core/estimate/components'
import { newEstimate } from '../../../core/estimate/estimate'
import { helpers, helpersFor, runHelper } from '../../../core/estimate/helpers'
import { inputText } from '../../../core/estimate/sheet/input-text'
import { findNotices, keptDuplicate, mergeRows } from '../../../core/estimate/sheet/notices'
import { numberText, readNumber } from '../../../core/estimate/sheet/number-text'
import { looksLikeRows, pasteRows } from '../../../core/estimate/sheet/paste'
import { keptText } from '../../../core/estimate/sheet/typed-text'
import { fillPattern, patternFrom, patternSchema } from '../../../core/estimate/pattern'
import { figureText, priceEstimate } from '../../../core/estimate/pricing/price-estimate'
import { PriceMemo } from '../../../core/estimate/pricing/price-memo'
import { evaluate } from '../../../core/working/working'
import { brackwaterCard } from '../../../demo/rate-cards'
import { demoPatterns } from '../../../demo/reusable'
import { pricesOf, testEstimate, testPrices, testRows } from '../../support/test-card'

const newIds = () => {
  let n = 0
  return () => `n${n++}`
}

it("pastes rows by the sheet's order of columns or by headings, and says what it left out", () => {
  const plain = pasteRows(
    [
      ['Servers', 'otter-4x16', '', '730 h', '3', 'on-demand'],
      ['outgoing traffic', '', '1 500 GB'],
      ['spaceship', '', '2'],
      ['Gateways', 'large', ''],
    ],
    'Front',
    newIds(),
  )
  expect(plain.components.map(({ kind, part, inputs }) => [kind, part, inputs])).toEqual([
    ['server', 'Front', { size: 'otter-4x16', hoursPerMonth: '730', count: '3', pays: 'on-demand' }],
    ['internet-transfer', 'Front', { sentGb: '1500' }],
    ['gateway', 'Front', {}],
  ])
  expect(plain.problems.map(p => p.line)).toEqual([3, 4])
  expect(plain.problems[0]!.text).toContain('«spaceship»')
  const headed = pasteRows(
    [
      ['part', 'component', 'count', 'where'],
      ['Back', 'disk', '4', 'east-delta'],
    ],
    'Front',
    newIds(),
  )
  expect(headed.components).toMatchObject([
    { part: 'Back', kind: 'disk', inputs: { count: '4', where: 'east-delta' }, confirmed: ['where', 'count'] },
  ])
  // as files say it, and as earlier ones did
  for (const heading of ['payment', 'pays how']) {
    const { components } = pasteRows(
      [
        ['component', 'size', heading],
        ['server', 'otter-4x16', '1 year, paid monthly'],
      ],
      '',
      newIds(),
    )
    expect(components[0]!.inputs).toEqual({ size: 'otter-4x16', pays: '1 year, paid monthly' })
  }
  expect(looksLikeRows([['Servers', 'x']])).toBe(true)
  expect(looksLikeRows([['730', '4']])).toBe(false)
})

it('checks pasted values as typed ones: a wrong one is kept and named', () => {
  const { components } = pasteRows([['Servers', 'otter-4x16', '', '800', '-2']], 'Front', newIds())
  const { rows } = priceEstimate({ ...newEstimate('t', brackwaterCard, 'low-coast'), components }, pricesOf(brackwaterCard))
  expect(Object.keys(rows[0]!.problems).sort()).toEqual(['count', 'hoursPerMonth'])
  expect(rows[0]!.inputs).toMatchObject({ hoursPerMonth: '800', count: '-2' })
})

it('reads a number however it was written, and writes it one way', () => {
  expect(numberText(readNumber('650..895..1100')!)).toBe('650..895..1100')
  expect(readNumber('9..5..7')).toBeNull()
  expect(readNumber('1..2')).toBeNull()
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 1e9 }), { minLength: 3, maxLength: 3 }), numbers => {
      const [low, likely, high] = numbers.sort((a, b) => a - b)
      const text = numberText(readNumber(`${low}..${likely}..${high}`)!)
      expect(numberText(readNumber(text)!)).toBe(text)
    }),
  )
  const gb = findKind('disk')!.fields.find(f => f.name === 'storageGb')!
  expect(keptText(gb, ' 1 200 GB ')).toBe('1200')
  expect(keptText(gb, 'twelve')).toBe('twelve')
})

it('says inputs in words', () => {
  const field = (kind: string, name: string) => findKind(kind)!.fields.find(f => f.name === name)!
  expect(inputText(field('server', 'hoursPerMonth'), '5d x 10h')).toBe('5 d × 10 h')
  expect(inputText(field('server', 'hoursPerMonth'), '55 %')).toBe('55 %')
  expect(inputText(field('functions', 'calls'), '20000000..36000000..60000000')).toBe('20\u2009–\u200936\u2009–\u200960 million')
  expect(inputText(field('internet-transfer', 'sentGb'), '12345')).toBe('12,345 GB')
})

it('points out a row that appears twice, unless it is meant, and merges the two', () => {
  const disk: [string, Record<string, string>] = ['disk', { class: 'plain', storageGb: '80', count: '2' }]
  const estimate = testEstimate([disk, disk])
  const notices = (e = estimate) => findNotices(e, priceEstimate(e, testPrices))
  expect(notices()).toEqual([{ component: 'c1', duplicateOf: 'c0', text: 'The same component is here twice.' }])
  expect(notices({ ...estimate, dismissed: [{ blindSpot: keptDuplicate('c1'), reason: 'two of them' }] })).toEqual([])
  const merged = mergeRows(estimate.components[0]!, estimate.components[1]!)!
  expect(merged.inputs.count).toBe('4')
  const cost = (components: typeof estimate.components) => figureText(priceEstimate({ ...estimate, components }, testPrices).total.monthly)
  expect(cost([merged])).toBe(cost(estimate.components))
  expect(
    mergeRows(testRows([['internet-transfer', { sentGb: '1..2..4' }]])[0]!, testRows([['internet-transfer', { sentGb: '10' }]])[0]!)!.inputs
      .sentGb,
  ).toBe('11..12..14')
  expect(mergeRows(estimate.components[0]!, testRows([['server', {}]])[0]!)).toBeNull()
})

it('warns when a commitment is held for hours in which nothing runs', () => {
  const at = (hoursPerMonth: string) => {
    const e = testEstimate([['server', { size: 'steady', hoursPerMonth, pays: '1 year, paid monthly' }]])
    return findNotices(e, priceEstimate(e, testPrices))
      .map(n => n.text)
      .join()
  }
  expect(at('220')).toContain('pays from 457 hours')
  expect(at('730')).toBe('')
})

it('makes numbers from what people know', () => {
  const make = (id: string, inputs: Record<string, string>) => {
    const made = runHelper(
      helpers.find(h => h.id === id)!,
      inputs,
    )
    return 'working' in made ? evaluate(made.working).toFixed() : made.problems
  }
  expect(make('calls-from-schedule', { functions: '3', perHour: '1', month: '31 days, 744 hours' })).toBe('2232')
  expect(make('calls-from-schedule', { functions: '3', perHour: '1' })).toBe('2190')
  expect(make('calls-from-users', { users: '1000', requests: '20', days: '21' })).toBe('420000')
  expect(make('transfer-from-visits', { kilobytes: '850', visits: '35000', days: '30.4' })).toBe('904.4')
  expect(make('storage-from-growth', { now: '500', growth: '40', months: '12' })).toBe('740')
  expect(make('storage-from-growth', { now: 'much' })).toMatchObject({ now: expect.stringContaining('is no number') })
  for (const helper of helpers)
    for (const fills of helper.fills) {
      const [kind, field] = fills.split('.') as [string, string]
      expect(
        findKind(kind)!.fields.some(f => f.name === field),
        fills,
      ).toBe(true)
      expect(helpersFor(kind, field)).toContain(helper)
    }
})

it('lists every default that moves the total, with how far, until it is confirmed', () => {
  const estimate = { ...newEstimate('t', brackwaterCard, 'low-coast'), components: testRows([['server', { size: 'otter-4x16' }]]) }
  const prices = pricesOf(brackwaterCard)
  const of = (confirmed: string[]) =>
    findAssumptions({ ...estimate, components: [{ ...estimate.components[0]!, confirmed }] }, prices, new PriceMemo()).list
  const all = of([])
  expect(all.map(a => a.field)).toEqual(expect.arrayContaining(['size', 'count', 'hoursPerMonth', 'system', 'host', 'peakCount', 'pays']))
  // spreading over zones costs nothing, so it is not asked about
  expect(all.map(a => a.field)).not.toContain('zones')
  expect(all.map(a => Math.abs(Number(a.effect)))).toEqual(all.map(a => Math.abs(Number(a.effect))).sort((a, b) => b - a))
  const now = Number(figureText(priceEstimate(estimate, prices).total.effectiveMonthly))
  const count = all.find(a => a.field === 'count')!
  expect(Number(count.effect)).toBeCloseTo(now, 8) // from one to two
  expect(of(['size', 'count']).map(a => a.field)).not.toContain('count')
})

it("fills a pattern's open fields, one answer into several rows, and takes the rest as it was saved", () => {
  for (const pattern of demoPatterns) {
    expect(patternSchema.parse(pattern)).toEqual(pattern)
    const components = fillPattern(pattern, {}, newIds())
    const { unpriced } = priceEstimate({ ...newEstimate('t', brackwaterCard, 'low-coast'), components }, pricesOf(brackwaterCard))
    expect(unpriced, pattern.name).toBe(0)
  }
  expect(demoPatterns.length).toBe(5)
  const [web] = demoPatterns
  const rows = fillPattern(web!, { 0: '7' }, newIds())
  expect(rows.filter(r => r.inputs.count === '7').map(r => r.kind)).toEqual(['server', 'disk'])
  expect(rows[0]).toMatchObject({ pattern: 'web-application', confirmed: ['count'] })
  const saved = patternFrom('mine', 'Mine', '', rows, [{ component: rows[0]!.id, field: 'count', label: 'how many' }])
  expect(fillPattern(saved, {}, newIds())[0]!.inputs).toEqual(rows[0]!.inputs)
  expect(
    patternSchema.safeParse({ ...saved, open: [{ label: 'x', help: '', usual: '', into: [{ component: 'nobody', field: 'count' }] }] })
      .success,
  ).toBe(false)
})
