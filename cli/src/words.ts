import { createInstance } from 'i18next'
import { ENGLISH, type Message } from '@velvet-porch/core/messages'
import type { Finding, Problem } from '@velvet-porch/core'

const words = createInstance({
  lng: 'en',
  resources: { en: { translation: ENGLISH } },
  interpolation: { escapeValue: false },
  initAsync: false,
  missingInterpolationHandler: (text: string) => {
    throw new Error(`A value is missing in “${text}”.`)
  },
})
void words.init()

/** A message of the core in English. */
export const say = ({ code, values }: Message): string => words.t(code, values)

/** @example problemText(p) // 'line 5, column 12: … — …' */
export function problemText({ line, column, says: { code, values } }: Problem): string {
  return `line ${line}, column ${column}: ${words.t(`${code}.what`, values)} — ${words.t(`${code}.taken`, values)}`
}

/** What the audit found, with its words: the form that JSON promises. */
export const findingText = ({ says, kind, measure, start, value }: Finding) => ({
  kind,
  measure,
  start,
  text: say(says),
  ...(value === undefined ? {} : { value }),
})
