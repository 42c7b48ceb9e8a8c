import fc from 'fast-check'
import type { Condition } from '../../core/allocation/condition'
import type { Rule } from '../../core/allocation/plan'

/** Conditions that look at what random charges have, and some that nothing meets. */
const condition: fc.Arbitrary<Condition> = fc.oneof(
  fc.record({
    dimension: fc.constantFrom('ServiceName', 'SubAccountName', 'RegionId', 'Tags/team', 'ResourceId'),
    values: fc.array(fc.constantFrom('Servers', 'Disks', 'live', 'rehearsal', 'r1', 'r2', 'a', 'b', 'res-1', 'res-2', 'nobody', null), {
      minLength: 1,
      maxLength: 4,
    }),
  }),
  fc.record({
    dimension: fc.constantFrom('ServiceName', 'ResourceId', 'Tags/team'),
    pattern: fc.constantFrom('RES-1*', 'disks', 'log*', '*', 'x*'),
  }),
  fc.record({ measure: fc.constant('billedCost' as const), atLeast: fc.constantFrom('0', '20000', '-500.5') }),
  fc.record({ measure: fc.constant('billedCost' as const), below: fc.constantFrom('0', '20000', '-500.5') }),
)

/** A rule with up to three conditions, on days or on all. */
export const randomRule: fc.Arbitrary<Rule> = fc.record({
  id: fc.uuid(),
  conditions: fc.array(condition, { minLength: 1, maxLength: 3 }),
  target: fc.constant('x'),
  from: fc.constantFrom(null, null, '2026-09-10', '2026-10-01'),
  until: fc.constantFrom(null, null, '2026-09-20', '2026-10-05'),
})
