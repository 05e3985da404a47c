import { SaxesParser } from 'saxes'
import { message, type Message } from '../../messages/message.ts'

/** An element of an XML text. */
export interface XmlElement {
  readonly name: string
  readonly attributes: Readonly<Record<string, string>>
  readonly children: readonly XmlElement[]
  /** The text inside it, without that of its children, trimmed. */
  readonly text: string
  /** Line of the text, from 1. */
  readonly line: number
}

/** An XML text that cannot be read. */
export class XmlError extends Error {
  override readonly name = 'XmlError'
  constructor(
    readonly says: Message<'reading'>,
    readonly line: number,
  ) {
    super(`${says.code} ${JSON.stringify(says.values)}`)
  }
}

/** No score is deeper, and none has more elements: guards against texts that are made to grow. */
const DEEPEST = 40
const MOST_ELEMENTS = 3_000_000

/**
 * Reads an XML text as a tree. Entities of a text's own are refused, so that none can grow; nothing is fetched.
 * @throws XmlError where the text is no XML, is cut short, or goes beyond what is read
 */
export function xmlTree(text: string): XmlElement {
  type Open = { -readonly [K in keyof XmlElement]: XmlElement[K] } & { children: XmlElement[] }
  if (/<!ENTITY/i.test(text)) throw new XmlError(message('reading.xmlEntities'), 1)
  const parser = new SaxesParser({ xmlns: false, position: true })
  const open: Open[] = []
  let root: XmlElement | undefined
  let elements = 0
  const refuse = (says: Message<'reading'>): never => {
    throw new XmlError(says, parser.line)
  }
  parser.on('opentag', (tag) => {
    if (open.length >= DEEPEST) refuse(message('reading.xmlTooDeep', { most: DEEPEST }))
    if (++elements > MOST_ELEMENTS) refuse(message('reading.xmlTooMany', { most: MOST_ELEMENTS }))
    const element: Open = {
      name: tag.name,
      attributes: tag.attributes,
      children: [],
      text: '',
      line: parser.line,
    }
    const parent = open.at(-1)
    if (parent) parent.children.push(element)
    else root ??= element
    open.push(element)
  })
  parser.on('text', (more) => {
    const own = open.at(-1)
    if (own) own.text += more
  })
  parser.on('cdata', (more) => {
    const own = open.at(-1)
    if (own) own.text += more
  })
  parser.on('closetag', () => {
    const own = open.pop()
    if (own) own.text = own.text.trim()
  })
  parser.on('error', (error) => {
    refuse(message('reading.notXml', { reason: error.message.replace(/^\d+:\d+: /, '') }))
  })
  parser.write(text).close()
  return root ?? refuse(message('reading.notXml', { reason: 'no element' }))
}

/** The first child of a name. */
export const child = (parent: XmlElement | undefined, name: string): XmlElement | undefined =>
  parent?.children.find((c) => c.name === name)

/** All children of a name. */
export const children = (parent: XmlElement | undefined, name: string): readonly XmlElement[] =>
  parent?.children.filter((c) => c.name === name) ?? []

/** The text of the first child of a name; undefined where there is none. */
export const textIn = (parent: XmlElement | undefined, name: string): string | undefined =>
  child(parent, name)?.text

/** The number in the first child of a name; undefined where there is none, or no number. */
export function numberIn(parent: XmlElement | undefined, name: string): number | undefined {
  const text = textIn(parent, name)
  const value = text === undefined || text === '' ? NaN : Number(text)
  return Number.isFinite(value) ? value : undefined
}
