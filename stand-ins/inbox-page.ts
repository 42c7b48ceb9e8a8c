import { escaped, page } from './page'

/** A page of what a stand-in has received, newest first: whom it is for, what it is about, and the whole text. */
export function inboxPage(name: string, received: readonly { for: string; about: string; text: string }[]): string {
  const entries = received.map(
    one => `<article><h2>${escaped(one.about)}</h2><p>for ${escaped(one.for)}</p><pre>${escaped(one.text)}</pre></article>`,
  )
  return page(name, `<p>${received.length ? `${received.length} received` : 'Nothing has come yet.'}</p>\n${entries.join('\n')}`)
}
