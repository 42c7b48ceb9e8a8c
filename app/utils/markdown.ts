import DOMPurify from 'dompurify'
import MarkdownIt from 'markdown-it'

const markdown = new MarkdownIt({ html: false, linkify: true })
// a picture would be fetched from whoever the note names: its address is shown instead, to be followed or not
markdown.renderer.rules.image = (tokens, place) => {
  const { content, attrs } = tokens[place]!
  const address = String(attrs?.find(([name]) => name === 'src')?.[1] ?? '')
  const escape = markdown.utils.escapeHtml
  return `<a href="${escape(address)}">${escape(content ? `${content} (${address})` : address)}</a>`
}

/** Markdown as harmless HTML, which loads nothing. */
export function markdownHtml(text: string): string {
  return DOMPurify.sanitize(markdown.render(text), {
    USE_PROFILES: { html: true },
    FORBID_TAGS: ['img', 'picture', 'video', 'audio', 'source'],
  })
}
