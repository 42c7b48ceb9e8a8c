import { z } from 'zod'

export const person = z.object({ id: z.string().min(1), name: z.string().min(1), role: z.string() })
export type Person = z.infer<typeof person>
export const peopleList = z.object({ people: z.array(person), who: z.string() })
export const chosenPerson = z.object({ id: z.string() })
