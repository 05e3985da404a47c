import { Badge, Group, Text } from '@mantine/core'
import type { TuneDoc } from '@velvet-porch/core/document'
import type { Problem } from '@velvet-porch/core/input'
import { useCallback, type RefObject } from 'react'
import { useTranslation } from 'react-i18next'
import type { SheetPosition } from '../../score/sheet/sheetModel.ts'
import { useStorageTrouble } from '../../state/storageTrouble.ts'
import { problemWords } from '../../texts/say.ts'
import { AbcEditor, type AbcEditorHandle } from './AbcEditor.tsx'
import { Departures } from './Departures.tsx'
import { Harmonise } from './Harmonise.tsx'
import type { AbcText } from './useAbcText.ts'
import css from './TextSide.module.css'

interface Props {
  readonly tune: TuneDoc
  readonly abc: AbcText
  readonly editor: RefObject<AbcEditorHandle | null>
  readonly onPosition: (position: SheetPosition) => void
}

/** The tune's text beside its page, with what the reader says of it. */
export function TextSide({ tune, abc, editor, onPosition }: Props) {
  const { t } = useTranslation()
  const { text, problems, edit, spans, saved, aligned } = abc
  const unstored = useStorageTrouble() !== undefined
  const words = useCallback(
    (p: Problem) => {
      const { what, taken } = problemWords(t, p)
      return `${what} — ${taken}`
    },
    [t],
  )
  const trouble = problems.filter((p) => p.severity !== 'note').length
  return (
    <aside className={css['tune-side']}>
      <Group justify="space-between">
        <Text fw={600}>{t('tune.text')}</Text>
        {trouble > 0 ? (
          <Badge color="red" variant="light">
            {t('tune.errors', { count: trouble })}
          </Badge>
        ) : saved && !unstored ? (
          <Badge color="plum" variant="light">
            {t('tune.saved')}
          </Badge>
        ) : null}
      </Group>
      <Harmonise tune={tune} text={text} spans={spans} onText={edit} />
      <AbcEditor
        text={text}
        label={t('tune.textLabel')}
        problems={problems}
        words={words}
        onText={edit}
        handle={editor}
      />
      <Text fw={600} size="sm">
        {t('tune.problems')}
      </Text>
      {aligned.fresh + aligned.gone > 0 ? (
        <Text size="sm" data-testid="aligned">
          {t('tune.aligned', { ...aligned })}
        </Text>
      ) : null}
      {problems.length === 0 ? (
        <Text size="sm">{t('tune.noProblems')}</Text>
      ) : (
        <ul className="problems" data-testid="problems">
          {problems.map((p, i) => (
            <li key={i} className={p.severity}>
              <button onClick={() => editor.current?.goTo(p.line, p.column)}>
                <strong>{t('tune.line', { line: p.line })}</strong> {problemWords(t, p).what};{' '}
                <span style={{ color: 'var(--ink-soft)' }}>{problemWords(t, p).taken}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
      <Departures tune={tune} onPosition={onPosition} />
    </aside>
  )
}
