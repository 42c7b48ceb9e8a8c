import { z } from 'zod'

/** Someone of the company, as others see them. */
export const person = z.object({ id: z.string().min(1), name: z.string().min(1, 'give the person a name'), role: z.string() })
export type Person = z.infer<typeof person>

/** Someone as a file of the organisation has them. */
export const personEntry = person.extend({
  /** Where statements are sent to. */
  mail: z.email('write an address like name@example.org').nullable().default(null),
  /** The cost centres of the first tree that they see, each with all below it; null or nothing for all there is. */
  bound: z.array(z.string().min(1)).nullable().default(null),
  /** Whether, within a bound, they see what pools are and how they are measured. */
  seesPools: z.boolean().default(false),
})

/** People, and whom one works as: `me` is null where that is none of them. */
export const peopleList = z.object({
  people: z.array(person),
  /** The name of whoever asks; `nobody chosen` for nobody. */
  who: z.string(),
  me: person
    .extend({
      /** The cost centres that are theirs, by id and name; null for all. */
      bound: z.array(z.object({ id: z.string(), name: z.string() })).nullable(),
      seesPools: z.boolean(),
    })
    .nullable(),
})
export type PeopleList = z.infer<typeof peopleList>
/** Someone to be saved under an id. */
export const personSave = personEntry.omit({ id: true })
export type PersonEntry = z.infer<typeof personEntry>
/** An id for a person: part of an address. */
export const personId = z.string().regex(/^[\p{Letter}\p{Number}][\p{Letter}\p{Number}._-]{0,99}$/u, 'letters, digits, points and hyphens')
export const chosenPerson = z.object({ id: z.string() })
