import { z } from 'zod'

export const capability = z.enum(['bill', 'rate card', 'inventory', 'measurements', 'events', 'actions', 'register'])

/** What a connection is made from. */
export const connectionInput = z.object({
  /** One word, as it stands in the names of files and jobs. */
  name: z
    .string()
    .trim()
    .regex(
      /^[\p{L}\p{N}][\p{L}\p{N} ._-]{0,59}$/u,
      'begin with a letter or digit; use letters, digits, spaces, dots, dashes and underscores, 60 at most',
    ),
  kind: z.string(),
  address: z.url({ protocol: /^https?$/, error: 'write a whole address, such as https://control.example.org' }).max(500),
  /** `env:NAME` or `file:/path`; the secret itself is kept nowhere. */
  secret: z
    .string()
    .trim()
    .regex(
      /^(env:[A-Za-z_][A-Za-z0-9_]*|file:\/.+)$/,
      'say where the secret is: env:NAME for a variable of the environment, or file:/path for a file',
    )
    .nullable()
    .default(null),
  /** Left out, the service is asked. */
  provider: z.string().trim().min(1).max(80).optional(),
})
export type ConnectionInput = z.infer<typeof connectionInput>
export const connectionTest = connectionInput.omit({ provider: true })
/** Whether a service answers, whose it is and what time it has. */
export const connectionTested = z.object({ provider: z.string().nullable(), now: z.string().nullable(), problem: z.string().nullable() })
export type ConnectionTested = z.infer<typeof connectionTested>

export const connectorKindList = z.object({
  kinds: z.array(z.object({ kind: z.string(), label: z.string(), help: z.string(), can: z.array(capability) })),
})
export type ConnectorKindView = z.infer<typeof connectorKindList>['kinds'][number]

/** What is connected and whether it answers. */
export const connectionState = z.object({
  connections: z.array(
    z.object({
      name: z.string(),
      provider: z.string(),
      now: z.string().nullable(),
      problem: z.string().nullable(),
      kind: z.string(),
      label: z.string(),
      address: z.string(),
      secret: z.string().nullable(),
      can: z.array(capability),
      /** Whether a day can be let pass there. */
      played: z.boolean(),
      who: z.string(),
      savedAt: z.string(),
    }),
  ),
})
export type ConnectionView = z.infer<typeof connectionState>['connections'][number]
