import { LANGUAGES } from '@velvet-porch/core/messages'
import i18next from 'i18next'
import { initReactI18next } from 'react-i18next'
import { en } from './en.ts'

/** What is wrong in the catalogue ends a test; a page goes on without the word. */
const strict = import.meta.env.MODE === 'test'
const wrong = (fault: string) => {
  if (strict) throw new Error(fault)
}

void i18next.use(initReactI18next).init({
  lng: 'en',
  supportedLngs: LANGUAGES,
  // A language has its catalogue beside `en`; what is not in it is said in English.
  fallbackLng: 'en',
  resources: { en: { translation: en } },
  interpolation: { escapeValue: false },
  initAsync: false,
  saveMissing: strict,
  missingKeyHandler: (_languages, _namespace, key) => wrong(`The catalogue has no ${key}.`),
  missingInterpolationHandler: (text: string) => wrong(`A value is missing in “${text}”.`),
})

/** Brings the texts of the stages, which the first page does without. */
export async function bringStages(): Promise<void> {
  const { stages } = await import('./stages.ts')
  i18next.addResourceBundle('en', 'translation', stages, true)
}
