import { message } from '../../messages/message.ts'
import type { Problem } from '../problem.ts'
import type { WrittenLine, WrittenPart } from './readSong.ts'

const plain = (name: string) => name.toLowerCase().replace(/[^\p{L}\d]+/gu, '')

const sungLines = ({ lines }: WrittenPart) => lines.filter((l) => l.kind === 'sung')

/** A line with the chords of another one. */
const borrowed = (line: WrittenLine, from: WrittenLine): WrittenLine => ({
  ...line,
  chords: from.chords,
  ...(line.bars === undefined && from.bars !== undefined ? { bars: from.bars } : {}),
  like: from,
})

/**
 * The parts in the order in which they are sung. A bare heading becomes the part that it calls for; words without any
 * chords take those of the first part of their kind, line by line.
 */
export function withCalledParts(parts: readonly WrittenPart[]): {
  readonly parts: WrittenPart[]
  readonly problems: Problem[]
} {
  const problems: Problem[] = []
  const done: WrittenPart[] = []
  for (const part of parts) {
    if (part.recalled) {
      const known =
        done.find((p) => !p.recalled && plain(p.name) === plain(part.name)) ??
        done.find((p) => !p.recalled && p.kind === part.kind && part.kind !== 'other')
      if (known)
        done.push({
          ...known,
          name: known.name || part.name,
          times: part.times,
          recalled: true,
          line: part.line,
        })
      else
        problems.push({
          severity: 'warning',
          line: part.line,
          column: 1,
          says: message('reading.songNoPart', { part: part.name }),
        })
      continue
    }
    const bare = sungLines(part).length > 0 && sungLines(part).every((l) => l.chords.length === 0)
    const model =
      bare &&
      done.find((p) => p.kind === part.kind && sungLines(p).some((l) => l.chords.length > 0 && !l.like))
    if (!model) {
      done.push(part)
      continue
    }
    const chorded = sungLines(model).filter((l) => l.text !== '')
    const from = chorded.length > 0 ? chorded : sungLines(model)
    let at = 0
    done.push({
      ...part,
      lines: part.lines.map((l) => (l.kind === 'sung' ? borrowed(l, from[at++ % from.length]!) : l)),
    })
    problems.push({
      severity: 'note',
      line: part.line,
      column: 1,
      says: message('reading.songBorrowed', { part: part.name || '–', from: model.name || '–' }),
    })
  }
  return { parts: done, problems }
}
