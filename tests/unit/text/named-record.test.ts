import fc from 'fast-check'
import { expect, it } from 'vitest'
import { z } from 'zod'
import { mappingSchema } from '../../../core/focus/mapping/mapping'
import { namedRecord } from '../../../core/text/named-record'
import { spendQuestion } from '../../../shared/contracts/spend'
import { referenceBody } from '../../../shared/contracts/spend-settings'

/** As a request brings it: JSON takes every name. */
const sent = (text: string): unknown => JSON.parse(text)

it('takes every name that JSON takes, and gives back what came', () => {
  const schema = namedRecord(namedRecord(z.string()))
  const name = fc.oneof(fc.constantFrom('__proto__', '~__proto__', '~~__proto__', 'constructor', 'toString', ''), fc.string())
  const entries = <T>(value: fc.Arbitrary<T>) => fc.uniqueArray(fc.tuple(name, value), { selector: ([key]) => key, maxLength: 8 })
  fc.assert(
    fc.property(entries(entries(fc.string()).map(list => Object.fromEntries(list) as Record<string, string>)), list => {
      const text = JSON.stringify(Object.fromEntries(list))
      expect(JSON.stringify(schema.parse(sent(text)))).toBe(text)
    }),
  )
})

it('checks the values under such names too', () => {
  expect(namedRecord(z.string()).safeParse(sent('{"__proto__": 3}')).success).toBe(false)
  expect(namedRecord(z.string()).safeParse(sent('["a"]')).success).toBe(false)
  expect(namedRecord(z.string()).safeParse(null).success).toBe(false)
})

it('keeps spellings, tags, accounts, days of sources and tag columns that are called __proto__', () => {
  const reference = referenceBody.parse(
    sent(`{"accounts": {"__proto__": {"path": ["a"], "tags": {"__proto__": "1"}}}, "containerTags": {"__proto__": {"__proto__": "2"}},
      "aliases": {"ServiceName": {"__proto__": "same"}}, "skus": {"__proto__": {"words": "3"}}}`),
  )
  expect(JSON.stringify(reference)).toBe(
    '{"accounts":{"__proto__":{"path":["a"],"tags":{"__proto__":"1"}}},"containerTags":{"__proto__":{"__proto__":"2"}},' +
      '"aliases":{"ServiceName":{"__proto__":"same"}},"skus":{"__proto__":{"words":"3"}},"reportCurrency":null,"requiredTags":[]}',
  )
  const question = spendQuestion.parse(
    sent(
      '{"measure": "billedCost", "start": "2026-10-01", "end": "2026-11-01", "splitBy": [], "grain": null, "ends": {"__proto__": "2026-10-20"}}',
    ),
  )
  expect(Object.entries(question.ends!)).toEqual([['__proto__', '2026-10-20']])
  const mapping = mappingSchema.parse(
    sent('{"tags": {"__proto__": "Team"}, "texts": {"ServiceName": {"column": "svc", "words": {"__proto__": "Proto"}}}}'),
  )
  expect(Object.entries(mapping.tags)).toEqual([['__proto__', 'Team']])
  expect(JSON.stringify(mapping.texts)).toBe('{"ServiceName":{"column":"svc","words":{"__proto__":"Proto"}}}')
})
