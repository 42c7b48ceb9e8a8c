export const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')

/** A page of a stand-in: plain, and without anything from elsewhere. @param body HTML, escaped where it has to be. */
export const page = (name: string, body: string): string => `<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><title>${escaped(name)}</title><meta name="viewport" content="width=device-width, initial-scale=1">
<style>
body { font: 15px/1.5 system-ui, sans-serif; max-width: 80ch; margin: 2rem auto; padding: 0 1rem; color: #222a27; background: #fbf9f4 }
article { border-top: 1px solid #cfcabd; padding: 0.5rem 0 }
h1, h2 { font-weight: 600; margin: 0 } h1 { font-size: 1.3rem } h2 { font-size: 1rem }
p { margin: 0; color: #5b635f } pre { white-space: pre-wrap; overflow-wrap: anywhere; font: inherit }
form { display: inline-block; margin: 0.4rem 0.8rem 0.4rem 0 } input { font: inherit; width: 16ch }
button { font: inherit; padding: 0.2rem 0.7rem }
</style></head>
<body><h1>${escaped(name)}</h1>
${body}
</body></html>
`
