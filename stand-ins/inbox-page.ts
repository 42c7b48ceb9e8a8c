const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')

/** A page of what a stand-in has received, newest first: whom it is for, what it is about, and the whole text. */
export function inboxPage(name: string, received: readonly { for: string; about: string; text: string }[]): string {
  const entries = received.map(
    one => `<article><h2>${escaped(one.about)}</h2><p>for ${escaped(one.for)}</p><pre>${escaped(one.text)}</pre></article>`,
  )
  return `<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><title>${escaped(name)}</title><meta name="viewport" content="width=device-width, initial-scale=1">
<style>
body { font: 15px/1.5 system-ui, sans-serif; max-width: 80ch; margin: 2rem auto; padding: 0 1rem; color: #222a27; background: #fbf9f4 }
article { border-top: 1px solid #cfcabd; padding: 0.5rem 0 }
h1, h2 { font-weight: 600; margin: 0 } h1 { font-size: 1.3rem } h2 { font-size: 1rem }
p { margin: 0; color: #5b635f } pre { white-space: pre-wrap; overflow-wrap: anywhere; font: inherit }
</style></head>
<body><h1>${escaped(name)}</h1><p>${received.length ? `${received.length} received` : 'Nothing has come yet.'}</p>
${entries.join('\n')}
</body></html>
`
}
