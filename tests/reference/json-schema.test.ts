// The published schemas, read by a general-purpose validator of JSON Schema draft 2020-12 (json-schema.org): Ajv.
import { readFileSync } from 'node:fs'
import { Ajv2020 } from 'ajv/dist/2020.js'
import { expect, it } from 'vitest'
import type { z } from 'zod'
import { writeEstimate } from '../../core/estimate/documents/estimate-file'
import { estimateSchema } from '../../core/estimate/estimate'
import { demoEstimates } from '../../demo/estimates'
import { brackwaterCard, brackwaterNextCard, larkfieldCard, pierHouseCard } from '../../demo/rate-cards'
import { allocationPlan, people } from '../../demo/organisation'
import { lookupTable, readLookupTable } from '../../core/spend/lookup-table'
import { measureTable, readMeasureTable } from '../../core/unit-cost/measure-table'
import { formatSchemas } from '../../scripts/format-schemas'
import { measureLoad } from '../../shared/contracts/measures'
import { organisation } from '../../shared/contracts/reference-data'
import { lookup } from '../../shared/contracts/spend-settings'

const published = (name: string) => JSON.parse(readFileSync(`docs/formats/${name}.schema.json`, 'utf8')) as object
const validator = (name: string) => new Ajv2020({ strict: false }).compile(published(name))

it('are what the code reads', () => {
  for (const [name, schema] of Object.entries(formatSchemas()))
    expect(published(name), `run «npx tsx scripts/write-schemas.ts» for ${name}`).toEqual(JSON.parse(JSON.stringify(schema)))
})

it('accept the cards and estimates that there are', () => {
  const [card, estimate] = [validator('rate-card'), validator('estimate')]
  for (const one of [brackwaterCard, brackwaterNextCard, larkfieldCard, pierHouseCard])
    expect(card(one), JSON.stringify(card.errors)).toBe(true)
  for (const { states } of demoEstimates)
    for (const state of states)
      expect(estimate(JSON.parse(writeEstimate(estimateSchema.parse(state.estimate)))), JSON.stringify(estimate.errors)).toBe(true)
})

const readers: Record<string, z.ZodType> = { organisation, lookup, measure: measureLoad }
it.each(['rate-card', 'organisation', 'lookup', 'measure'])('accept the example of the page of %s', name => {
  const example = /```json\n([\s\S]*?)```/.exec(readFileSync(`docs/formats/${name}.md`, 'utf8'))![1]!
  const valid = validator(name)
  expect(valid(JSON.parse(example)), JSON.stringify(valid.errors)).toBe(true)
  // and so does what reads it, with all that a schema cannot say
  const reader = readers[name]
  if (reader) expect(reader.safeParse(JSON.parse(example)).error?.issues).toBeUndefined()
})

it('the tables that the pages of lookups and measures show are what is read, and read back as the same', () => {
  const csv = (name: string) => {
    const text = /```csv\n([\s\S]*?)```/.exec(readFileSync(`docs/formats/${name}.md`, 'utf8'))![1]!
    const [heads = [], ...rows] = text
      .trimEnd()
      .split('\n')
      .map(line => line.split(','))
    return { heads, rows }
  }
  const own = readLookupTable(csv('lookup'))
  expect(lookup.safeParse(own.lookup).success).toBe(true)
  expect(lookupTable(own.lookup!)).toEqual(csv('lookup'))
  const { measures, wrong } = readMeasureTable(csv('measure'))
  expect([wrong, measures.map(({ name, grain, values }) => [name, grain, values.length])]).toEqual([[], [['bookings', 'day', 2], ['containers', 'month', 1]]]) // prettier-ignore
  expect(measureTable(measures)).toEqual(csv('measure'))
})

it('refuse what is none', () => {
  const table = validator('lookup')
  expect([table({ by: 'Tags/team', fields: ['a'], entries: [{ key: '', values: {} }] }), table({ fields: ['a'], entries: [] })]).toEqual([
    false,
    false,
  ])
  expect(validator('measure')({ unit: 'booking', grain: 'week', values: [] })).toBe(false)
  const file = validator('organisation')
  expect(file({ people, plan: allocationPlan }), JSON.stringify(file.errors)).toBe(true)
  expect(file({ people, plan: { ...allocationPlan, rules: [{ id: 'x', target: 'y', conditions: [] }] } })).toBe(false)
  expect(file({ people: [{ name: 'no id' }], plan: allocationPlan })).toBe(false)
  const card = validator('rate-card')
  expect(card({ ...pierHouseCard, prices: [] })).toBe(false)
  expect(card({ ...pierHouseCard, prices: [{ ...pierHouseCard.prices[0], unit: 'Furlongs' }] })).toBe(false)
  expect(card({ ...pierHouseCard, prices: [{ ...pierHouseCard.prices[0], more: 1 }] })).toBe(false)
})
