import { present } from '../../invariant.ts'
import type { Id } from '../../document/ids.ts'
import { type Measure } from '../../document/tune.ts'
import { measureNumbers } from '../../document/form/measureNumbers.ts'
import { isKnownOrnament } from '../../arrange/ornament/sourceOrnaments.ts'
import { QUARTER } from '../../music/time/ticks.ts'
import { message } from '../../messages/message.ts'
import { type Problem } from '../problem.ts'
import { readMetre } from './abcFields.ts'
import type { DraftMeasure, VoiceReading } from './voiceReading.ts'
import { type BookTune } from './splitBook.ts'
import type { Report } from './voiceReading.ts'

/** The parser falls back silently on some impossible metres and unit lengths, so the fields are read again here. */
export function checkFields(source: BookTune, problems: Problem[]): void {
  source.text.split('\n').forEach((line, i) => {
    const unit = /^L:\s*([^%]*?)\s*(%.*)?$/.exec(line)?.[1]
    if (unit !== undefined && unit !== '' && !/^(1|1?\/(1|2|4|8|16|32|64|128|256|512))$/.test(unit))
      problems.push({
        severity: 'warning',
        line: i + 1 + source.lineOffset,
        column: 3,
        says: message('reading.badUnit', { unit }),
      })
    const field = /^M:\s*([^%]*)/.exec(line)
    const value = field?.[1]?.trim() ?? ''
    if (!field || value === '' || /^(C\||C|none)$/.test(value)) return
    const fraction = /^\(?([\d+ ]+)\)?\/(\d+)$/.exec(value)
    if (fraction && readMetre({ type: 'specified', value: [{ num: fraction[1]!, den: fraction[2]! }] }))
      return
    problems.push({
      severity: 'warning',
      line: i + 1 + source.lineOffset,
      column: 3,
      says: message('reading.badMetre', { metre: value }),
    })
  })
}

export function reportMeasures(
  measures: readonly Measure[],
  drafts: readonly DraftMeasure[],
  report: Report,
): void {
  const numbers = measureNumbers(measures)
  measures.forEach((m, i) => {
    const before = measures[i - 1]
    const after = measures[i + 1]
    const edge =
      !before ||
      !after ||
      m.repeatStart ||
      after.repeatStart ||
      m.repeatEnd > 1 ||
      before.repeatEnd > 1 ||
      m.barline !== 'single' ||
      before.barline !== 'single' ||
      after.endings.length !== m.endings.length
    if (m.length > m.nominal || (m.length < m.nominal && !edge)) {
      const values = { number: numbers[i]!, beats: beats(m.length), nominal: beats(m.nominal) }
      report('warning', drafts[i]!.from, message('reading.oddMeasure', values))
    }
  })
}

function beats(ticks: number): string {
  return String(Number((ticks / QUARTER).toFixed(3)))
}

export function reportKept(voices: readonly VoiceReading[], report: Report): void {
  const first = voices[0]!
  const at = (id: Id | undefined) => first.spans.find((s) => s.target === id)?.from ?? 0
  const graces = first.events.filter((e) => e.graces.length > 0)
  const ornaments = first.events.filter((e) => e.ornaments.length > 0)
  const stacked = first.events.filter((e) => e.chordTones.length > 0)
  const unknown = ornaments.filter((e) => e.ornaments.some((o) => !isKnownOrnament(o)))
  if (graces.length > 0)
    report('note', at(graces[0]!.id), message('reading.graceNotes', { count: graces.length }))
  if (ornaments.length > unknown.length)
    report(
      'note',
      at(present(ornaments.find((e) => !unknown.includes(e))).id),
      message('reading.ornaments', { count: ornaments.length - unknown.length }),
    )
  if (unknown.length > 0)
    report('note', at(unknown[0]!.id), message('reading.otherOrnaments', { count: unknown.length }))
  if (stacked.length > 0)
    report('note', at(stacked[0]!.id), message('reading.notesUnderMelody', { count: stacked.length }))
  if (voices.length > 1) report('note', 0, message('reading.voices', { count: voices.length }))
}
