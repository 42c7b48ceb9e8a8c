import { z } from 'zod'
import { problemDetails } from '../../../shared/contracts/common'
import { allOperations } from '../../operations'
import type { Operation } from '../../operations/operation'

const schema = (contract: z.ZodType, io: 'input' | 'output') => {
  const { $schema: _, ...rest } = z.toJSONSchema(contract, { io, unrepresentable: 'any' })
  return rest
}
const json = (contract: z.ZodType, io: 'input' | 'output') => ({ 'application/json': { schema: schema(contract, io) } })
const file = { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } }

function parametersOf({ path, query }: Operation) {
  const inPath = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({ name, in: 'path', required: true, schema: { type: 'string' } }))
  const own = query ? z.toJSONSchema(query, { io: 'input', unrepresentable: 'any' }) : null
  const inQuery = Object.entries(own?.properties ?? {}).map(([name, property]) => ({
    name,
    in: 'query',
    required: own!.required?.includes(name) ?? false,
    schema: property,
  }))
  return [...inPath, ...inQuery]
}

function operationOf(operation: Operation) {
  const { tag, says, body, shownBody, isBodyOptional = false, reply, status = 200 } = operation
  return {
    tags: [tag],
    summary: says,
    parameters: parametersOf(operation),
    ...(body && { requestBody: { required: !isBodyOptional, content: body === 'bytes' ? file : json(shownBody ?? body, 'input') } }),
    responses: {
      [status]: { description: 'as it should be', content: reply === 'file' ? file : json(reply, 'output') },
      default: {
        description: 'what went wrong, as RFC 9457 problem details',
        content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
      },
    },
  }
}

/** The OpenAPI 3.1 document of everything under /api/v1, made from the contracts that routes and pages share. */
export function openApiDocument() {
  const paths: Record<string, Record<string, unknown>> = {}
  for (const operation of allOperations) (paths[operation.path] ??= {})[operation.method] = operationOf(operation)
  return {
    openapi: '3.1.0',
    info: {
      title: 'Rain Barrel',
      version: '1',
      description:
        'Amounts are decimal texts with every digit. Dimensions are those of GET /spend/dimensions. Periods are half-open days in UTC.',
    },
    servers: [{ url: '/api/v1' }],
    paths,
    components: { schemas: { Problem: schema(problemDetails, 'output') } },
  }
}
