import { z } from 'zod'
import { findKind } from './components'
import { rowNow } from './documents/earlier-format'
import { componentSchema, type Component } from './estimate'
import { inputText } from './sheet/input-text'
import { keptText } from './sheet/typed-text'

/** A reusable set of components with fields left open. */
const shape = z.strictObject({
  id: z.string().min(1).max(60),
  name: z.string().trim().min(1, 'give the pattern a name').max(80),
  description: z.string().max(500),
  components: z
    .array(componentSchema.omit({ confirmed: true, pattern: true }))
    .min(1)
    .max(100),
  /** Fields that are asked for when it is used; one answer may go into several rows. */
  open: z.array(
    z.strictObject({
      label: z.string().trim().min(1).max(80),
      help: z.string().max(300),
      into: z.array(z.strictObject({ component: z.string(), field: z.string() })).min(1),
      usual: z.string(),
    }),
  ),
})

/** Patterns of the second format are read on: their rows have other words for ways to pay and fleets. */
function presentPattern(value: unknown): unknown {
  if (typeof value !== 'object' || value === null || !Array.isArray((value as { components?: unknown }).components)) return value
  const { components, open, ...kept } = value as { components: unknown[]; open?: unknown }
  const field = (one: unknown): unknown =>
    typeof one === 'object' && one !== null && (one as { field?: unknown }).field === 'heaviness' ? { ...one, field: 'work' } : one
  return {
    ...kept,
    components: components.map(row => rowNow(row)),
    open: Array.isArray(open)
      ? open.map((one: unknown) =>
          typeof one === 'object' && one !== null && Array.isArray((one as { into?: unknown }).into)
            ? { ...one, into: (one as { into: unknown[] }).into.map(field) }
            : one,
        )
      : open,
  }
}

export const patternSchema = z.preprocess(
  presentPattern,
  shape.superRefine((pattern, context) => {
    const ids = new Set(pattern.components.map(c => c.id))
    pattern.open.forEach((field, index) => {
      for (const { component } of field.into)
        if (!ids.has(component))
          context.addIssue({
            code: 'custom',
            path: ['open', index],
            message: `«${field.label}» goes into «${component}», which the pattern does not have`,
          })
    })
  }),
)
export type Pattern = z.infer<typeof shape>
/** The plain schema without what it reads of earlier formats: for the published JSON Schema. */
export const patternShape = shape

const kept = (kind: string, field: string, text: string) => {
  const found = findKind(kind)?.fields.find(f => f.name === field)
  return found ? keptText(found, text) : text.trim()
}

/** What an open field usually is, as it is shown and may be typed again. */
export function usualShown({ components, open }: Pattern, index: number): string {
  const { into, usual } = open[index]!
  const kind = components.find(c => c.id === into[0]!.component)?.kind
  const field = kind === undefined ? undefined : findKind(kind)?.fields.find(f => f.name === into[0]!.field)
  return field ? inputText(field, usual) : usual
}

/** The rows of a pattern with its open fields filled. @param newId makes an id for a row. @param answers by the index of the open field. */
export function fillPattern(pattern: Pattern, answers: Record<number, string>, newId: () => string): Component[] {
  return pattern.components.map(component => {
    const inputs = { ...component.inputs }
    const filled: string[] = []
    pattern.open.forEach(({ into, usual }, index) => {
      for (const { component: id, field } of into) {
        if (id !== component.id) continue
        inputs[field] = kept(component.kind, field, answers[index] ?? usual)
        if (answers[index] !== undefined) filled.push(field)
      }
    })
    return { ...component, id: newId(), inputs, confirmed: filled, pattern: pattern.id }
  })
}

/** A part of an estimate as a pattern: what people have chosen is left open, so that it is asked for the next time. */
export function patternFrom(
  id: string,
  name: string,
  description: string,
  components: readonly Component[],
  openFields: readonly { component: string; field: string; label: string }[],
): Pattern {
  const open = openFields.map(({ component, field, label }) => ({
    label,
    help: '',
    into: [{ component, field }],
    usual: components.find(c => c.id === component)?.inputs[field] ?? '',
  }))
  return { id, name, description, open, components: components.map(({ confirmed: _, pattern: __, ...kept }) => kept) }
}
