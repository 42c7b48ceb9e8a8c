import DOMPurify from 'dompurify'
import MarkdownIt from 'markdown-it'

const markdown = new MarkdownIt({ html: false, linkify: true })

/** Markdown as harmless HTML. */
export function markdownHtml(text: string): string {
  return DOMPurify.sanitize(markdown.render(text), { USE_PROFILES: { html: true } })
}
