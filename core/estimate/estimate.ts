import { z } from 'zod'
import { parseDecimal } from '../money/decimal'
import { isDay } from '../time/day'

/** How something is paid: as it runs, or by a commitment of one or three years. */
export const wayToPay = z.enum(['on-demand', '1 year, none upfront', '1 year, part upfront', '1 year, all upfront', '3 years, none upfront', '3 years, part upfront', '3 years, all upfront'])
export type WayToPay = z.infer<typeof wayToPay>

/** One row of the sheet. `inputs` are checked by the schema of its kind. */
const componentSchema = z.object({
  id: z.string().min(1),
  /** The named part of the workload that it belongs to. */
  part: z.string(),
  kind: z.string().min(1),
  inputs: z.record(z.string(), z.string()),
  /** Inputs that a person has set or agreed to; the others are defaults. */
  confirmed: z.array(z.string()),
})
export type Component = z.infer<typeof componentSchema>

const percent = z.string().refine((text) => {
  const value = parseDecimal(text)
  return value !== null && value.gte(0) && value.lte(100)
}, 'a percentage from 0 to 100')
const decimal = z.string().refine(text => parseDecimal(text)?.gte(0) === true, 'a number of zero or more')

/** What a person makes of a workload: inputs only; totals are always computed from them. */
export const estimateSchema = z.object({
  format: z.literal('rain-barrel estimate 1'),
  name: z.string().trim().min(1, 'give the estimate a name').max(120),
  provider: z.string().min(1),
  rateCardDate: z.string().refine(isDay, 'write a day like 2026-11-01'),
  region: z.string().min(1),
  target: decimal.nullable(),
  /** Off is the careful case: free units are often drawn by something else already. */
  useFreeAllowance: z.boolean(),
  discountPercent: percent,
  taxPercent: percent,
  components: z.array(componentSchema).max(2000),
  dismissed: z.array(z.object({ blindSpot: z.string(), reason: z.string().trim().min(1, 'say why it does not apply') })),
}).superRefine((estimate, context) => {
  const ids = new Set<string>()
  estimate.components.forEach((component, index) => {
    if (ids.has(component.id)) context.addIssue({ code: 'custom', path: ['components', index, 'id'], message: `the component «${component.id}» is there twice` })
    ids.add(component.id)
  })
})
export type Estimate = z.infer<typeof estimateSchema>
