import { createInstance } from 'i18next'
import { ArrangeError } from '../../src/arrange/index.ts'
import { TabReadError, type Problem } from '../../src/input/index.ts'
import { ENGLISH, type Message } from '../../src/messages/index.ts'

/** The catalogue in English; a text that misses one of its values, or that is missing itself, throws. */
const catalogue = createInstance({
  lng: 'en',
  resources: { en: { translation: ENGLISH } },
  interpolation: { escapeValue: false },
  initAsync: false,
  saveMissing: true,
  missingKeyHandler: (_languages, _namespace, key) => {
    throw new Error(`The catalogue has no ${key}.`)
  },
  missingInterpolationHandler: (text: string) => {
    throw new Error(`A value is missing in “${text}”.`)
  },
})
void catalogue.init()

/** A message as it is read on the page. */
export const say = ({ code, values }: Message): string => catalogue.t(code, values)

/** What is odd in a text, and what was taken for it. */
export const problemWords = ({ says: { code, values } }: Pick<Problem, 'says'>) => ({
  what: catalogue.t(`${code}.what`, values),
  taken: catalogue.t(`${code}.taken`, values),
})

/** What a refusal says to people; the empty text where nothing is refused. */
export function refusalWords(run: () => unknown): string {
  try {
    run()
    return ''
  } catch (error) {
    if (error instanceof ArrangeError) return say(error.says)
    if (!(error instanceof TabReadError)) throw error
    const { what, taken } = problemWords(error)
    return `${what}; ${taken}`
  }
}
