// A mapping as it is edited: each edit leaves the mapping before as it was.
import { expect, it } from 'vitest'
import * as edit from '../../../core/focus/mapping/edit-mapping'
import { mappingSchema } from '../../../core/focus/mapping/mapping'

const cost = { column: 'BilledCost', kind: 'number' as const }
const service = { column: 'ServiceName', kind: 'text' as const }
const start = { column: 'ChargePeriodStart', kind: 'time' as const }
const mapping = mappingSchema.parse({
  numbers: { BilledCost: { column: 'cents', times: '0.01' } },
  texts: { ServiceName: { constant: 'Disks' } },
  times: { ChargePeriodStart: { column: 'day' } },
  tags: { team: 'Team' },
})

it('says where a field comes from, and takes it from elsewhere or nowhere', () => {
  expect([edit.sourceOf(mapping, cost), edit.sourceOf(mapping, service), edit.sourceOf(mapping, start)]).toEqual([
    ...[{ column: 'cents' }, { constant: 'Disks' }, { column: 'day' }],
  ])
  expect(edit.sourceOf(mapping, { column: 'RegionId', kind: 'text' })).toBeNull()
  const changed = edit.withSource(edit.withSource(mapping, service, { column: 'what' }), start, null)
  expect([changed.texts, changed.times, changed.numbers]).toEqual([{ ServiceName: { column: 'what' } }, {}, mapping.numbers])
  // what the old column was multiplied by says nothing of the new one
  expect(edit.withSource(mapping, cost, { column: 'euros' }).numbers).toEqual({ BilledCost: { column: 'euros' } })
  expect(mapping.texts.ServiceName).toEqual({ constant: 'Disks' })
})

it('a number is multiplied by a number or a column; by anything else it is not', () => {
  const by = (factor: string) => edit.withFactor(mapping, 'BilledCost', factor, ['cents', 'rate', '2'])
  expect([edit.factorOf(mapping, 'BilledCost'), edit.factorOf(by('rate'), 'BilledCost'), edit.factorOf(by(''), 'BilledCost')]).toEqual([
    ...['0.01', 'rate', ''],
  ])
  expect(by('-1.5').numbers.BilledCost).toEqual({ column: 'cents', times: '-1.5' })
  expect([by('1,5').numbers.BilledCost, by('1e3').numbers.BilledCost]).toEqual([{ column: 'cents' }, { column: 'cents' }])
  // a column that is called like a number is the column
  expect(by('2').numbers.BilledCost).toEqual({ column: 'cents', timesColumn: '2' })
  expect(edit.withFactor(mapping, 'ServiceName', '2', [])).toBe(mapping)
  expect(edit.factorOf(mapping, 'ListCost')).toBe('')
})

it('columns become tags under their names in small letters', () => {
  const tagged = edit.withTag(mapping, ' Cost Centre (old)')
  expect(tagged.tags).toEqual({ team: 'Team', 'cost-centre-old-': ' Cost Centre (old)' })
  expect(edit.withoutTag(tagged, 'team').tags).toEqual({ 'cost-centre-old-': ' Cost Centre (old)' })
  expect(mappingSchema.safeParse(tagged).success).toBe(true)
})
