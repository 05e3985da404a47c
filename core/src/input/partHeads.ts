import { timesOf } from './times.ts'
import { partNameIn, type PartKind } from '../document/partKind.ts'

/** A heading of a part. */
export interface PartHead {
  readonly kind: PartKind
  readonly name: string
  readonly times: number
  /** True where it says that the part comes again. */
  readonly again: boolean
  /** What stands behind a colon on the same line. */
  readonly rest?: string
}

const AGAIN = /^\(?(?:repeat|again|repeated|da capo|bis|wdh\.?|same as (?:before|above)|ulitin)\)?$/i
/** "Repeat chorus", "Back to verse 1", "(repeat the chorus)". */
const CALLED = /^[([]?\s*(?:repeat|back to|go to|then|play)\s+(?:the\s+)?(.+?)\s*[)\]]?\s*$/i

/** Reads a heading: "Verse 1", "[Chorus x2]", "CHORUS (repeat)", "Intro: C G", "--- Bridge ---"; undefined for anything else. */
export function partHeadIn(line: string): PartHead | undefined {
  const called = CALLED.exec(line.trim())
  if (called) {
    const head = partHeadIn(called[1]!)
    if (head && !head.rest) return { ...head, again: true }
  }
  const open = /^\s*[[(<{*#=_~-]*\s*/.exec(line)?.[0] ?? ''
  const body = line.slice(open.length)
  const found = partNameIn(body)
  if (!found) return undefined
  const { kind } = found
  const number =
    /^[ .]*(?:#?\d{1,2}|[IVX]{1,4}|[A-D])?(?:\s*(?:&|and|[-–+,/])\s*\d{1,2})*(?![A-Za-z\d])/.exec(
      body.slice(found.name.length),
    )
  let name = found.name + (number?.[0] ?? '')
  let tail = body.slice(name.length)
  let times = 1
  let again = false
  let bracketed = /[[(<{]/.test(open)
  // What a heading says of itself stands behind its name, bracketed or not.
  for (;;) {
    const word = /^\s*([([]\s*[^()[\]]*[)\]]|[^\s:\])>}*=_~#-]+)/.exec(tail)
    if (!word) break
    const text = word[1]!.trim()
    const count = timesOf(text)
    if (count !== undefined) times = count
    else if (AGAIN.test(text)) again = true
    else if (/^[([]/.test(text) && bracketless(text).length <= 40) name += ` ${text}`
    else break
    tail = tail.slice(word[0].length)
  }
  const close = /^\s*[\])>}*=_~#-]*\s*/.exec(tail)?.[0] ?? ''
  bracketed &&= /[\])>}]/.test(close)
  tail = tail.slice(close.length)
  const after = timesOf(tail.trim().replace(/^:\s*|:$/g, ''))
  if (after !== undefined) return { kind, name: tidy(name), times: after, again }
  if (AGAIN.test(tail.trim())) return { kind, name: tidy(name), times, again: true }
  const colon = /^:\s*/.exec(tail)
  if (tail.trim() === '' || colon?.[0].length === tail.length) {
    // A word that stands alone in the middle of words may be sung; short names need a sign that they are none.
    const alone = found.name.length <= 2 && !bracketed && !colon && !number?.[0].trim()
    return alone ? undefined : { kind, name: tidy(name), times, again }
  }
  if (!colon && !bracketed) return undefined
  return { kind, name: tidy(name), times, again, rest: tail.slice(colon?.[0].length ?? 0) }
}

const bracketless = (text: string) => text.replace(/^[([]\s*|\s*[)\]]$/g, '')

/** Capitals of a shouted heading made those of a name. */
const tidy = (name: string): string => {
  const trimmed = name
    .trim()
    .replace(/[\s:.-]+$/, '')
    .replace(/\s+/g, ' ')
  const plain = /[a-z]/.test(trimmed)
    ? trimmed
    : trimmed.toLowerCase().replace(/\b[ivx]+$/, (n) => n.toUpperCase())
  return plain.slice(0, 1).toUpperCase() + plain.slice(1)
}
