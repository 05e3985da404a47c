import { message } from '../../messages/message.ts'
import { newPartState, readMeasure, type XmlMeasure, type XmlNote } from './readMeasure.ts'
import { child, children, textIn, XmlError, xmlTree, type XmlElement } from './xmlTree.ts'

/** A part of a score. */
export interface XmlPart {
  readonly id: string
  readonly name: string
  readonly measures: readonly XmlMeasure[]
  readonly tabStaves: ReadonlySet<number>
  /** Strings and capo of its tab, where the file says them. */
  readonly details?: XmlElement
}

/** A score as a file has it. */
export interface XmlScore {
  readonly title: string
  readonly composer?: string
  readonly rights?: string
  readonly source?: string
  readonly parts: readonly XmlPart[]
}

/**
 * Reads a score.
 * @throws XmlError where the text is no MusicXML
 */
export function readParts(text: string): XmlScore {
  const root = xmlTree(text)
  if (root.name !== 'score-partwise' && root.name !== 'score-timewise')
    throw new XmlError(message('reading.notMusicXml', { element: root.name.slice(0, 40) }), root.line)
  const names = new Map(
    children(child(root, 'part-list'), 'score-part').map((p) => [
      p.attributes['id'] ?? '',
      (textIn(p, 'part-name') ?? '').replace(/\s+/g, ' '),
    ]),
  )
  const identification = child(root, 'identification')
  const creators = children(identification, 'creator')
  const composer = (creators.find((c) => c.attributes['type'] === 'composer') ?? creators[0])?.text
  const rights = textIn(identification, 'rights')
  const source = textIn(identification, 'source')
  const title =
    textIn(child(root, 'work'), 'work-title') || textIn(root, 'movement-title') || creditTitle(root)
  return {
    title: title ?? '',
    ...(composer ? { composer } : {}),
    ...(rights ? { rights } : {}),
    ...(source ? { source } : {}),
    parts: partsOf(root).map(({ id, measures }) => {
      const state = newPartState()
      const read = measures.map((m) => readMeasure(m, state))
      return {
        id,
        name: names.get(id) ?? '',
        measures: read,
        tabStaves: state.tabStaves,
        ...(state.details ? { details: state.details } : {}),
      }
    }),
  }
}

function creditTitle(root: XmlElement): string | undefined {
  const credit = children(root, 'credit').find((c) => textIn(c, 'credit-type') === 'title')
  return textIn(credit, 'credit-words')
}

/** The measures of each part, whichever of the two ways the file is ordered in. */
function partsOf(root: XmlElement): { id: string; measures: readonly XmlElement[] }[] {
  if (root.name === 'score-partwise')
    return children(root, 'part').map((p) => ({
      id: p.attributes['id'] ?? '',
      measures: children(p, 'measure'),
    }))
  const measures = new Map<string, XmlElement[]>()
  for (const m of children(root, 'measure'))
    for (const p of children(m, 'part')) {
      const id = p.attributes['id'] ?? ''
      const own = measures.get(id) ?? []
      own.push({ ...m, children: p.children })
      measures.set(id, own)
    }
  return [...measures].map(([id, own]) => ({ id, measures: own }))
}

/** String and fret of a note, where it has them. */
export function placeIn(note: XmlElement): { readonly string: number; readonly fret: number } | undefined {
  for (const notations of children(note, 'notations'))
    for (const technical of children(notations, 'technical')) {
      const [string, fret] = [
        Number(textIn(technical, 'string') ?? NaN),
        Number(textIn(technical, 'fret') ?? NaN),
      ]
      if (Number.isInteger(string) && Number.isInteger(fret) && string >= 1 && fret >= 0)
        return { string, fret }
    }
  return undefined
}

/** True for a staff of a part that is a tab beside one in notes: it says the same again. */
export const isTabBesideStaff = ({ tabStaves, measures }: XmlPart, staff: number): boolean =>
  tabStaves.has(staff) &&
  measures.some((m) => m.notes.some((n: XmlNote) => n.pitch !== undefined && !tabStaves.has(n.staff)))
