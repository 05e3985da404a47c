import { escaped } from '../markup.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { LessonSettings } from '../../lesson/text/lessonSettings.ts'
import { DRAWING_CSS } from './paperCss.ts'

/** What a lesson file holds of its lesson; all else is computed when it is opened. */
export interface LessonData {
  readonly tune: TuneDoc
  readonly doc: ArrangementDoc
  readonly settings: LessonSettings
  /** Words of the teacher to pieces, by the id of a piece's first measure and the tick in it. */
  readonly notes: Readonly<Record<string, string>>
  /** The student's id, where the lesson is made for one; the log brings it back. */
  readonly student?: string
}

/** The key of a piece's notes. */
export const noteKey = (
  tune: Pick<TuneDoc, 'measures'>,
  { from, tick = 0 }: { from: number; tick?: number },
): string => `${tune.measures[from]!.id}.${tick}`

/** What a lesson needs: not the tune's text, nor what is locked in its tab, nor what was made for other students. */
function stripped(data: LessonData): LessonData {
  const { abc: _, ...tune } = data.tune
  const { base, variants } = data.doc
  const open = variants.filter((v) => v.when.student === undefined)
  return { ...data, tune, doc: { ...data.doc, variants: open, base: { ...base, locks: [] } } }
}

/** What the file may do: run its own script and use its own fonts; nothing is fetched from or sent to anywhere. */
const POLICY =
  "default-src 'none'; script-src 'unsafe-inline'; style-src 'unsafe-inline'; font-src data:; img-src data:; connect-src 'none'; form-action 'none'; base-uri 'none'"

/**
 * One HTML file that teaches a tab anywhere, without a network. Names with markup are data in it and run nothing.
 * @param script the lesson page's program
 * @param look its style rules, with the fonts in them
 */
export function lessonFileHtml(data: LessonData, script: string, look: string): string {
  const json = JSON.stringify(stripped(data)).replace(
    /[<\u2028\u2029]/g,
    (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`,
  )
  const program = script.replace(/<\/(script)/gi, '<\\/$1').replace(/<!--/g, '<\\!--')
  return `<!doctype html>
<html lang="${data.settings.speech.language}">
<head>
<meta charset="utf-8">
<meta http-equiv="Content-Security-Policy" content="${POLICY}">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(data.tune.title)}</title>
<style>${DRAWING_CSS}${look.replace(/<\//g, '<\\/')}</style>
</head>
<body>
<main id="lesson"></main>
<script type="application/json" id="data">${json}</script>
<script>${program}</script>
</body>
</html>
`
}
