import 'i18next'
import type { en } from './en.ts'
import type { stages } from './stages.ts'

declare module 'i18next' {
  interface CustomTypeOptions {
    defaultNS: 'translation'
    resources: { translation: typeof en & typeof stages }
  }
}
