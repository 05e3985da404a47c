import { LIMITS, METRE_UNITS } from '../../document/limits.ts'
import type { Metre } from '../../music/time/metre.ts'
import { message } from '../../messages/message.ts'
import { SUGGESTED_LINE } from '../../output/text/tabSigns.ts'
import { takeFactLine, type HeadFacts } from '../headFacts.ts'
import { partHeadIn } from '../partHeads.ts'
import type { Problem } from '../problem.ts'
import { timesInLine } from '../times.ts'
import { isChordLine, isMarkLine, isRhythmLine } from './linesAbove.ts'
import { playerIn } from './systemMarks.ts'

/** What the lines over the first system say of the tune; the first that says nothing else is its title. */
export function factsOf(head: readonly string[]): HeadFacts {
  const facts: HeadFacts = {}
  const words: string[] = []
  for (const [i, line] of head.entries()) {
    const bare = line.trim()
    if (bare === '' || bare === SUGGESTED_LINE || takeFactLine(facts, line)) continue
    const over = isRhythmLine(line) || isChordLine(line) || /^\W*$|^[\d\s]+$/.test(bare)
    const marked = partHeadIn(line) || playerIn(line) || timesInLine(line) !== undefined || isMarkLine(line)
    const says = /^(?:tuning|tuned|capo|tempo|time|metre|meter|by\b|chord names)/i.test(bare)
    const by = /^by[:\s]+(.+)$/i.exec(bare)
    if (by) facts.artist ??= by[1]!.trim()
    else if (!over && !marked && !says && i <= LAST_TITLE_LINE && !/[,:;]$/.test(bare)) words.push(bare)
  }
  const [title, artist] = words[0]?.split(/\s+[-–—]\s+/) ?? []
  if (title) facts.title ??= title
  if (artist) facts.artist ??= artist
  return facts
}

/** How far down a title may stand, in lines. */
const LAST_TITLE_LINE = 12

/** The metre that a text states; an impossible one is said, and not taken. */
export function statedMetre(text: string, problems: Problem[]): Metre | undefined {
  const found = /(?:^|\s)(?:time|metre|meter)\D{0,4}(\d{1,3})\/(\d{1,3})/im.exec(text)
  if (!found) return undefined
  const [num, den] = [Number(found[1]), Number(found[2])]
  if (num >= 1 && num <= LIMITS.metreBeats && (METRE_UNITS as readonly number[]).includes(den))
    return { num, den }
  problems.push({
    severity: 'warning',
    line: text.slice(0, found.index + 1).split('\n').length,
    column: 1,
    says: message('reading.badTabMetre', { metre: `${num}/${den}` }),
  })
  return undefined
}
