import { measureNumbers } from '../form/measureNumbers.ts'
import type { ArrangementDoc } from '../model/arrangement.ts'
import type { TuneDoc } from '../model/tune.ts'
import type { LessonStep } from './lessonStep.ts'
import { lessonSteps } from './lessonSteps.ts'
import { countText, stepSentences } from './stepText.ts'
import { fill } from './template.ts'
import type { Wording } from './wording.ts'

/** One measure of a lesson in words. */
export interface MeasureScript {
  /** Index of the measure. */
  readonly measure: number
  readonly title: string
  /** Strings that are not played in it; absent where all are. */
  readonly silent?: string
  /** A line a step: the count, and what is done. */
  readonly lines: readonly string[]
}

/** The whole tab as a script, measure by measure; measures in which nothing happens are left out. */
export function lessonScript(
  tune: TuneDoc,
  doc: Pick<ArrangementDoc, 'base' | 'setup'>,
  words: Wording,
  steps: readonly LessonStep[] = lessonSteps(tune, doc),
): MeasureScript[] {
  const numbers = measureNumbers(tune.measures)
  const by = new Map<number, LessonStep[]>()
  for (const step of steps) by.set(step.measure, [...(by.get(step.measure) ?? []), step])
  return [...by].map(([measure, own]): MeasureScript => {
    const silent = silentStrings(own, doc.setup.instrument.strings)
    return {
      measure,
      title: fill(words.measure, { number: numbers[measure]! }),
      ...(silent.length > 0 ? { silent: fill(words.silent, { strings: silent.join(', ') }) } : {}),
      lines: own.map((s) =>
        `${countText(s.count, words)}: ${stepSentences(s, words)
          .map((t) => `${t}.`)
          .join(' ')}`.trimEnd(),
      ),
    }
  })
}

/** Strings that neither are struck nor ring on in some steps, the lowest first. */
function silentStrings(steps: readonly LessonStep[], strings: number): number[] {
  const heard = new Set(steps.flatMap((s) => [...s.notes.map((n) => n.string), ...s.ringing]))
  return Array.from({ length: strings }, (_, i) => strings - i).filter((s) => !heard.has(s))
}

/** The script as plain text. */
export const scriptText = (script: readonly MeasureScript[]): string =>
  script
    .map(({ title, silent, lines }) => [title, ...(silent ? [silent] : []), ...lines].join('\n'))
    .join('\n\n')
