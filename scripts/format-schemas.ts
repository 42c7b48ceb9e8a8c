import { z } from 'zod'
import { estimateShape } from '../core/estimate/estimate'
import { rateCardShape } from '../core/ratecard/rate-card'
import { measureLoad } from '../shared/contracts/measures'
import { organisation } from '../shared/contracts/reference-data'
import { lookup } from '../shared/contracts/spend-settings'

/** JSON Schemas of the file formats, by the name of their document. Rules across fields are said in the documents beside them. */
export function formatSchemas(): Record<string, unknown> {
  const schema = (title: string, of: z.ZodType) => ({ title, ...z.toJSONSchema(of, { io: 'input', unrepresentable: 'any' }) })
  return {
    'rate-card': schema('Rain Barrel rate card', rateCardShape),
    estimate: schema('Rain Barrel estimate', estimateShape),
    lookup: schema('Rain Barrel lookup', lookup),
    measure: schema('Rain Barrel business measure', measureLoad),
    organisation: schema('Rain Barrel people and cost centres', organisation),
  }
}
