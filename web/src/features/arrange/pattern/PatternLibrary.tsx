import { Text, UnstyledButton } from '@mantine/core'
import { fitsMetre, patternsFor, type PatternStyle } from '@velvet-porch/core/arrange'
import type { PatternText } from '@velvet-porch/core/document'
import type { Metre } from '@velvet-porch/core/music'
import type { OwnPattern } from '@velvet-porch/core/schema'
import { useTranslation } from 'react-i18next'
import { OwnPatterns } from './OwnPatterns.tsx'
import css from './PatternTools.module.css'
import arrangeCss from '../arrange.module.css'

interface Props {
  readonly style: PatternStyle
  readonly metre: Metre
  readonly draft: PatternText
  readonly own: readonly OwnPattern[]
  readonly onChoose: (pattern: PatternText) => void
}

/** The patterns that suit a style and metre: those of the library, then the teacher's own. */
export function PatternLibrary({ style, metre, draft, own, onChoose }: Props) {
  const { t } = useTranslation()
  const suited = patternsFor(style, metre)
  return (
    <>
      <Text size="xs" c="dimmed">
        {t(suited.length > 0 ? 'pattern.ready' : 'pattern.none', { metre: `${metre.num}/${metre.den}` })}
      </Text>
      <div className={css['pattern-library']}>
        {suited.map((p) => (
          <UnstyledButton
            key={p.id}
            className={p.text === draft.text ? `${arrangeCss.chip} chosen` : arrangeCss.chip}
            aria-pressed={p.text === draft.text}
            onClick={() => onChoose({ metre: p.metre, perBeat: p.perBeat, text: p.text })}
          >
            <b>{t(`pattern.names.${p.id as 'loom'}`)}</b>
          </UnstyledButton>
        ))}
        <OwnPatterns
          patterns={own.filter((p) => p.style === style && fitsMetre(p, metre))}
          draft={draft}
          onChoose={onChoose}
        />
      </div>
    </>
  )
}
