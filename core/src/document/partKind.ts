import { present } from '../invariant.ts'

export const PART_KINDS = ['verse', 'chorus', 'bridge', 'intro', 'outro', 'other'] as const
export type PartKind = (typeof PART_KINDS)[number]

/** What parts of songs are called, in the languages of the app and German. No source: common practice. */
const NAMES: Readonly<Record<PartKind, string>> = {
  verse: 'verse|vers|vs|v|strophe|couplet|estrofa|verso|berso|talata|stanza|part|parte',
  chorus: 'pre[ -]?chorus|post[ -]?chorus|chorus|chor|refrain|refrein|coro|estribillo|koro|ch|hook',
  bridge: 'bridge|middle (?:eight|8)|pont|puente|tulay|br|b-part',
  intro: 'intro|introduction|introducción|introducci[oó]n|lead[ -]?in|vorspiel',
  outro: 'outro|ending|end|coda|final|fin|tag|nachspiel|katapusan',
  other: 'solo|instrumental|interlude|interludio|break|turnaround|riff|lick|vamp|guitar solo|mandolin solo',
}

const KINDS = Object.keys(NAMES) as PartKind[]

const NAME = new RegExp(`^(?:${KINDS.map((k) => `(${NAMES[k]})`).join('|')})(?![a-zà-ÿ'’])`, 'i')

/** The name of a part at the head of a text, as written, with its kind. */
export function partNameIn(text: string): { readonly kind: PartKind; readonly name: string } | undefined {
  const found = NAME.exec(text)
  if (!found) return undefined
  const kind = present(KINDS[found.slice(1).findIndex((g) => g !== undefined)])
  return { kind, name: found[0] }
}

/** Kind of a part by its name. */
export const partKind = (name: string): PartKind => partNameIn(name.trim())?.kind ?? 'other'
