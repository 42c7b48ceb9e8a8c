import { setCookie } from 'h3'
import { operations } from '../../../operations'
import { PERSON_COOKIE, route } from '../../../http/route'

const YEAR_S = 60 * 60 * 24 * 365

export default route(operations.people.choose, ({ event, persons, body }) => {
  const { id } = persons.find(body.id)
  setCookie(event, PERSON_COOKIE, id, { httpOnly: true, sameSite: 'strict', path: '/', maxAge: YEAR_S })
  return { id }
})
