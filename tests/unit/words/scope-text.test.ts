import { expect, it } from 'vitest'
import { scopeText } from '../../../shared/words/sentence-text'

it('says which charges are looked at', () => {
  expect(scopeText({ keep: {}, leaveOut: {}, conditions: [] })).toBe('')
  expect(
    scopeText({
      keep: { SubAccountName: ['rehearsal'], ServiceName: ['a', 'b', 'c', 'd', 'e', 'f'], 'Tags/owner': [null], 'Tags/team': ['x', null] },
      leaveOut: { RegionId: ['r1', 'r2'] },
      conditions: [
        { dimension: 'ResourceName', keep: true, contains: 'trial' },
        { dimension: 'ResourceId', keep: false, above: '100' },
      ],
    }),
  ).toBe(
    'sub account rehearsal, service a or b or c or d or 2 more, no owner tag, team tag x or none, without region r1 or r2, ' +
      'resource name with «trial» in it, without resource above 100',
  )
})
