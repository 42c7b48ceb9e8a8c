import { gzipSync } from 'node:zlib'
import { expect, it } from 'vitest'
import { peek } from '../../../app/utils/peek'
import { charge, focusCsv } from '../../support/charges'

const file = (name: string, content: string | Uint8Array) => new File([content as BlobPart], name)
const kind = async (name: string, content: string | Uint8Array) => (await peek(file(name, content))).kind

it('knows the product’s own files by what is in them', async () => {
  expect(await kind('a.json', '{"prices":[]}')).toBe('rate card')
  expect(await kind('A.JSON', '{"plan":{}}')).toBe('cost centres')
  expect(await kind('a.json', '{"containerTags":{}}')).toBe('account tree')
  expect(await kind('a.json', '{"measures":[]}')).toBe('measures')
  expect([await kind('a.json', '[1]'), await kind('a.json', '{"constructor":1}'), await kind('a.json', '{')]).toEqual(
    Array(3).fill('unknown'),
  )
  expect(await kind('a.csv', 'row,valid from\ncard,2026-01-01\n')).toBe('rate card table')
  expect(await kind('a.csv', 'from,to,valid from,rate\nUSD,EUR,2026-01-01,0.9\n')).toBe('exchange rates')
  expect(await kind('a.csv', 'tree,cost centre,name,below\n,a,A,\n')).toBe('cost centre table')
  expect(await kind('a.csv', 'rule,goes to,condition,looks at,test,value\n')).toBe('rule table')
  expect(await kind('a.csv', 'issuer,invoice,month,total\nP,1,2026-01,5\n')).toBe('invoices')
})

it('knows charges, packed or not, and another’s columns by what they lack', async () => {
  const csv = focusCsv([charge({ ProviderName: 'Brackwater Cloud' })])
  const own = { kind: 'charges', provider: 'Brackwater Cloud', billingPeriodStart: '2026-10-01' }
  expect(await peek(file('a.csv', csv))).toEqual(own)
  expect(await peek(file('a.csv.gz', gzipSync(csv)))).toEqual(own)
  expect(await peek(file('a.parquet', 'PAR1…'))).toEqual({ kind: 'charges', provider: null, billingPeriodStart: null })
  expect(await kind('a.csv', 'date,what,cost\n2026-10-01,disk,5\n')).toBe('foreign charges')
  // what is no table at all is the server's to refuse
  expect([await kind('a.bin', 'a\0b\nc'), await kind('a.csv', ''), await kind('a.csv.gz', gzipSync(csv).subarray(0, 40))]).toEqual(
    Array(3).fill('charges'),
  )
})
