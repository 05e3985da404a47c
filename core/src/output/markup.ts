import { present } from '../invariant.ts'
/** Text made safe for XML and HTML, in text and in quoted attributes. */
export const escaped = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)

type Attributes = Readonly<Record<string, string | number | undefined>>

/** An element as text. Content is taken as it stands: texts must be escaped. */
export function el(name: string, attributes: Attributes, ...content: readonly string[]): string {
  const list = Object.entries(attributes)
    .filter(([, v]) => v !== undefined)
    .map(([k, v]) => ` ${k}="${typeof v === 'number' ? rounded(v) : escaped(present(v))}"`)
    .join('')
  return content.length > 0 ? `<${name}${list}>${content.join('')}</${name}>` : `<${name}${list}/>`
}

/** An element that holds nothing but a text, escaped. */
export const leaf = (name: string, content: string | number): string => el(name, {}, escaped(String(content)))

/** A text element with its words escaped. */
export const words = (attributes: Attributes, text: string | number): string =>
  el('text', attributes, escaped(String(text)))

const rounded = (n: number): string => String(Math.round(n * 100) / 100)
