import { z } from 'zod'
import { estimateShape } from '../core/estimate/estimate'
import { rateCardShape } from '../core/ratecard/rate-card'
import { organisation } from '../shared/contracts/reference-data'

/** JSON Schemas of the file formats, by the name of their document. Rules across fields are said in the documents beside them. */
export function formatSchemas(): Record<string, unknown> {
  const schema = (title: string, of: z.ZodType) => ({ title, ...z.toJSONSchema(of, { io: 'input', unrepresentable: 'any' }) })
  return {
    'rate-card': schema('Rain Barrel rate card', rateCardShape),
    estimate: schema('Rain Barrel estimate', estimateShape),
    organisation: schema('Rain Barrel people and cost centres', organisation),
  }
}
