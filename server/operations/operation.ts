import { z } from 'zod'
import { notFound } from '../problems/problem'
import type { BodyLimits } from './body-limits'

/**
 * Whose an operation is: `bounded` shows of the charges what whoever asks may see, `common` shows nothing of charges, `company` is for
 * those only who see the whole company.
 */
export type Reach = 'bounded' | 'common' | 'company'

/** What one request to the interface takes and what comes back. */
export type Operation = {
  tag: string
  method: 'get' | 'post' | 'put' | 'delete'
  /** As OpenAPI writes it: `/imports/{id}`. */
  path: string
  says: string
  /** What it shows, and so to whom. */
  reach: Reach
  /** Parts of the path that are more than a text. */
  parts?: Readonly<Record<string, z.ZodType>>
  query?: z.ZodObject
  /** JSON of this shape, or a file that the route streams. */
  body?: z.ZodType | 'bytes'
  /** What the document shows of the body, where the checks of its reading have no JSON Schema. */
  shownBody?: z.ZodType
  /** Whether there may be no body at all, which is then read as `{}`. */
  isBodyOptional?: boolean
  limits?: BodyLimits
  /** What comes back; a file for `file`. */
  reply: z.ZodType | 'file'
  status?: number
}

/** The names in braces of a path. */
type PartNames<Path extends string> = Path extends `${string}{${infer Name}}${infer Rest}` ? Name | PartNames<Rest> : never
/** The parts of the path, decoded: a text where the operation says no more of it. */
export type PathOf<O extends Operation> = {
  [Name in PartNames<O['path']>]: O['parts'] extends Record<Name, infer S extends z.ZodType> ? z.output<S> : string
}
export type QueryOf<O extends Operation> = O['query'] extends z.ZodType ? z.output<O['query']> : undefined
export type BodyOf<O extends Operation> = O['body'] extends z.ZodType ? z.output<O['body']> : undefined
/** What a route gives; bytes or a stream for a file. */
export type ReplyOf<O extends Operation> = O['reply'] extends z.ZodType ? z.input<O['reply']> : unknown

/** An entry of the table of operations. @param path as OpenAPI writes it. */
export const operation = <
  const Method extends Operation['method'],
  const Path extends string,
  const More extends Omit<Operation, 'tag' | 'method' | 'path' | 'says'>,
>(
  tag: string,
  method: Method,
  path: Path,
  says: string,
  more: More,
): { tag: string; method: Method; path: Path; says: string } & More => ({ tag, method, path, says, ...more })

/** The largest id that the database gives. */
const LARGEST_ID = 2 ** 31 - 1

/** A part of the path that is the number of something. @param what what is looked for, such as `job`: there is none under anything else. */
export const numberOf = (what: string) =>
  z.string().transform(text => {
    const id = /^\d{1,10}$/.test(text) ? Number(text) : NaN
    if (!(id <= LARGEST_ID)) throw notFound(what, `«${text}» is the number of none.`)
    return id
  })
