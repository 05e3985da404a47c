import { createInstance } from 'i18next'
import { ENGLISH, type Message } from '@velvet-porch/core/messages'
import type { AuditReport, Finding } from '@velvet-porch/core/audit'
import type { Problem } from '@velvet-porch/core/input'

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

/** What is odd in a text, and what was taken for it. */
export const problemWords = ({ says: { code, values } }: Pick<Problem, 'says'>) => ({
  what: words.t(`${code}.what`, values),
  taken: words.t(`${code}.taken`, values),
})

/** @example problemText(p) // 'line 5, column 12: … — …' */
export function problemText(problem: Problem): string {
  const { what, taken } = problemWords(problem)
  const place = problem.line === 0 ? '' : `line ${problem.line}, column ${problem.column}: `
  return `${place}${what} — ${taken}`
}

/** A report of the audit with its words: the form that JSON promises. */
export const auditWords = (report: AuditReport) => ({ ...report, findings: report.findings.map(findingText) })

const findingText = ({ says, kind, measure, start, value }: Finding) => ({
  kind,
  measure,
  start,
  text: say(says),
  ...(value === undefined ? {} : { value }),
})
