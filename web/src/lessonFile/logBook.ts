import type { TuneDoc } from '@velvet-porch/core/document'
import {
  entriesFrom,
  LOG_FORMAT,
  LONGEST_LOG_NOTE,
  type LogEntry,
  type PaperWords,
  type PracticeLog,
} from '@velvet-porch/core/lesson'
import type { LessonData } from '@velvet-porch/core/output/handout'
import { dayOf, type Day } from '@velvet-porch/core/studio'
import { h } from './dom.ts'

/** The practice log as the page has it. */
export interface LogBook {
  readonly element: HTMLElement
  readonly entries: () => readonly LogEntry[]
  /** Writes down what was practised. */
  readonly write: (entry: LogEntry) => void
}

/** The practice log: written down on this device, saved as a file for the teacher. */
export function logBook(
  { tune, settings, student }: LessonData,
  words: PaperWords['lesson'],
  pieces: readonly string[],
  goalBpm: number,
): LogBook {
  let entries = entriesOf(tune)
  const list = h('ul', { class: 'entries' })
  const piece = h(
    'select',
    { id: 'log-piece' },
    ...pieces.map((text, i) => h('option', { value: i + 1 }, text)),
  )
  const number = (id: string, value: number, most: number) =>
    h('input', { id, type: 'number', min: 0, max: most, value, inputmode: 'numeric' })
  const bpm = number('log-bpm', Math.round(goalBpm * 0.6), 500)
  const clean = number('log-clean', 3, 1000)
  const minutes = number('log-minutes', 10, 1440)
  const note = h('input', { id: 'log-note', type: 'text', maxlength: LONGEST_LOG_NOTE })
  const draw = () => {
    list.replaceChildren(
      ...(entries.length === 0
        ? [h('li', {}, words.empty)]
        : entries
            .map((e) =>
              h(
                'li',
                {},
                `${e.day} · ${pieces[e.piece - 1] ?? ''} · ♩ = ${e.bpm} · ${e.clean}× · ${e.minutes} min${e.note ? ` · ${e.note}` : ''}`,
              ),
            )
            .reverse()),
    )
  }
  const add = (event: Event) => {
    event.preventDefault()
    const entry: LogEntry = {
      day: today(),
      piece: Number(piece.value),
      bpm: Math.min(500, Math.max(1, Number(bpm.value) || 1)),
      clean: Math.max(0, Math.round(Number(clean.value) || 0)),
      minutes: Math.min(1440, Math.max(0, Number(minutes.value) || 0)),
      note: note.value.slice(0, LONGEST_LOG_NOTE),
    }
    write(entry)
    note.value = ''
  }
  const write = (entry: LogEntry) => {
    entries = [...entries, entry]
    try {
      localStorage.setItem(keyOf(tune), JSON.stringify(entries))
    } catch {
      // The browser keeps nothing for files: the log holds until it is closed, and can be saved before.
    }
    draw()
  }
  const send = () => {
    const log: PracticeLog = {
      format: LOG_FORMAT,
      version: 1,
      tune: tune.id,
      title: tune.title,
      unit: settings.unit,
      ...(student === undefined ? {} : { student }),
      entries,
    }
    const url = URL.createObjectURL(new Blob([JSON.stringify(log)], { type: 'application/json' }))
    const link = h('a', { href: url, download: `${tune.title.replace(/[\\/:*?"<>|]+/g, '-')} practice.json` })
    link.click()
    setTimeout(() => URL.revokeObjectURL(url), 10_000)
  }
  draw()
  const field = (id: string, label: string, input: HTMLElement) =>
    h('p', {}, h('label', { for: id }, label), input)
  const element = h(
    'section',
    { class: 'log' },
    h('h2', {}, words.log),
    h('p', { class: 'soft' }, words.logHint),
    h(
      'form',
      { submit: add },
      field('log-piece', words.pieces, piece),
      field('log-bpm', words.reached, bpm),
      field('log-clean', words.clean, clean),
      field('log-minutes', words.minutes, minutes),
      field('log-note', words.note, note),
      h('button', { type: 'submit' }, words.add),
    ),
    list,
    h('button', { type: 'button', click: send }, words.send),
  )
  return { element, entries: () => entries, write }
}

/** The day by this device's clock. */
export const today = (): Day => dayOf(new Date())

const keyOf = ({ id }: TuneDoc): string => `velvet-porch.log.${id}`

/** What was written down on this device before. */
export function entriesOf(tune: TuneDoc): LogEntry[] {
  try {
    return entriesFrom(JSON.parse(localStorage.getItem(keyOf(tune)) ?? '[]'))
  } catch {
    return []
  }
}
