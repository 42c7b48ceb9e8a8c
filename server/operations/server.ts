import { z } from 'zod'
import { operation } from './operation'

export const server = {
  health: operation('server', 'get', '/health', 'Answers when the server can.', { reach: 'common', reply: z.object({}).loose() }),
  document: operation('server', 'get', '/openapi.json', 'This document.', { reach: 'common', reply: z.object({}).loose() }),
}
