import { keyOf, withEntry, type TasteNotice, type TasteScope } from '@velvet-porch/core/taste'
import { useTranslation } from 'react-i18next'
import { newId } from '../../../newId.ts'
import { usePlayers } from '../../../state/players.ts'
import { usePrefs } from '../../../state/prefs.ts'
import { changeTaste, useActiveTaste } from '../../../state/tastes.ts'
import { noticesInWorker } from '../../../workers/benchWorker.ts'
import { useAnswer } from '../../../workers/useAnswer.ts'
import { Act, Notice } from '../Notice.tsx'
import { useBenchPage } from '../bench/BenchContext.ts'
import { useTasteWords } from '../../taste/useTasteWords.ts'

/** What the app noticed in corrections, and the offer to keep to it: one thing at a time. */
export function TasteNotices() {
  const { t } = useTranslation()
  const words = useTasteWords()
  const { tune } = useBenchPage()
  const taste = useActiveTaste()
  const { player } = usePrefs()
  const student = usePlayers().find((p) => p.id === player)
  const { answer: notices } = useAnswer('tasteNotices', noticesInWorker, taste && ([taste] as const))
  const notice = notices?.[0]
  if (!taste || !notice || !tune) return null
  const keep = (scope: TasteScope) =>
    void changeTaste(taste.id, (doc) =>
      withEntry(scope.kind === 'always' && notice.against ? without(doc, notice.against.id) : doc, {
        id: newId(),
        on: true,
        says: notice.says,
        scope,
        from: 'noticed',
        cases: notice.cases,
      }),
    )
  return (
    <Notice testId="taste-notice" text={textOf(notice)}>
      <Act onClick={() => keep({ kind: 'always' })}>{t('taste.offer.always')}</Act>
      <Act plain onClick={() => keep({ kind: 'tune', id: tune.id, name: tune.title })}>
        {t('taste.offer.tune')}
      </Act>
      {student ? (
        <Act plain onClick={() => keep({ kind: 'student', id: student.id, name: student.name })}>
          {t('taste.offer.student', { name: student.name })}
        </Act>
      ) : null}
      <Act
        plain
        onClick={() =>
          void changeTaste(taste.id, (doc) => ({ ...doc, declined: [...doc.declined, keyOf(notice.says)] }))
        }
      >
        {t('taste.offer.no')}
      </Act>
    </Notice>
  )

  function textOf({ says, cases, against }: TasteNotice): string {
    const said = t('taste.noticed', {
      count: cases.length,
      what: words.says(says),
      where: words.cases(cases),
    })
    return against ? `${said} ${t('taste.against', { what: words.says(against.says) })}` : said
  }
}

const without = <D extends { readonly entries: readonly { readonly id: string }[] }>(
  doc: D,
  id: string,
): D => ({
  ...doc,
  entries: doc.entries.filter((e) => e.id !== id),
})
