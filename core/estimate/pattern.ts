import { z } from 'zod'
import { componentSchema, type Component } from './estimate'

/** A reusable set of components with fields left open. */
export const patternSchema = z.strictObject({
  id: z.string().min(1).max(60),
  name: z.string().trim().min(1, 'give the pattern a name').max(80),
  description: z.string().max(500),
  components: z.array(componentSchema.omit({ confirmed: true, pattern: true })).min(1).max(100),
  /** Fields that are asked for when it is used; one answer may go into several rows. */
  open: z.array(z.strictObject({ label: z.string().trim().min(1).max(80), help: z.string().max(300), into: z.array(z.strictObject({ component: z.string(), field: z.string() })).min(1), usual: z.string() })),
}).superRefine((pattern, context) => {
  const ids = new Set(pattern.components.map(c => c.id))
  pattern.open.forEach((field, index) => {
    for (const { component } of field.into) if (!ids.has(component)) context.addIssue({ code: 'custom', path: ['open', index], message: `«${field.label}» goes into «${component}», which the pattern does not have` })
  })
})
export type Pattern = z.infer<typeof patternSchema>

/** The rows of a pattern with its open fields filled. @param newId makes an id for a row. @param answers by the index of the open field. */
export function fillPattern(pattern: Pattern, answers: Record<number, string>, newId: () => string): Component[] {
  return pattern.components.map((component) => {
    const inputs = { ...component.inputs }
    const filled: string[] = []
    pattern.open.forEach(({ into, usual }, index) => {
      for (const { component: id, field } of into) {
        if (id !== component.id) continue
        inputs[field] = answers[index] ?? usual
        if (answers[index] !== undefined) filled.push(field)
      }
    })
    return { ...component, id: newId(), inputs, confirmed: filled, pattern: pattern.id }
  })
}

/** A part of an estimate as a pattern: what people have chosen is left open, so that it is asked for the next time. */
export function patternFrom(id: string, name: string, description: string, components: readonly Component[], openFields: readonly { component: string, field: string, label: string }[]): Pattern {
  const open = openFields.map(({ component, field, label }) => ({ label, help: '', into: [{ component, field }], usual: components.find(c => c.id === component)?.inputs[field] ?? '' }))
  return { id, name, description, open, components: components.map(({ confirmed: _, pattern: __, ...kept }) => kept) }
}
