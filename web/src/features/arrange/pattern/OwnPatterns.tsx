import { ActionIcon, Button, Group, Text, TextInput, UnstyledButton } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import type { PatternText } from '@velvet-porch/core/document'
import { samePattern, type PatternStyle } from '@velvet-porch/core/arrange'
import type { OwnPattern } from '@velvet-porch/core/schema'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { newId } from '../../../newId.ts'
import { dropPattern, keepPattern } from '../../../state/patterns.ts'
import { errorWords } from '../../../workers/errorWords.ts'
import arrangeCss from '../arrange.module.css'

/** The teacher's own patterns beside the ready ones. */
export function OwnPatterns({
  patterns,
  draft,
  onChoose,
}: {
  patterns: readonly OwnPattern[]
  draft: PatternText
  onChoose: (pattern: PatternText) => void
}) {
  const { t } = useTranslation()
  return patterns.map((p) => {
    const chosen = samePattern(p, draft)
    return (
      <span key={p.id} className={chosen ? `${arrangeCss.chip} chosen` : arrangeCss.chip}>
        <UnstyledButton
          aria-pressed={chosen}
          onClick={() => onChoose({ metre: p.metre, perBeat: p.perBeat, text: p.text })}
        >
          <b>{p.name}</b>
        </UnstyledButton>
        <ActionIcon
          size={16}
          variant="subtle"
          color="gray"
          aria-label={t('pattern.drop', { name: p.name })}
          onClick={() => void dropPattern(p.id)}
        >
          <IconX size={12} />
        </ActionIcon>
      </span>
    )
  })
}

/** Keeps the pattern at hand under a name, for every tune; a name that is known is given to it anew. */
export function KeepPattern({
  style,
  pattern,
  known,
}: {
  style: PatternStyle
  /** Absent where there is nothing new that can be kept. */
  pattern: PatternText | undefined
  known: readonly OwnPattern[]
}) {
  const { t } = useTranslation()
  const [name, setName] = useState('')
  const [fault, setFault] = useState<string>()
  if (!pattern) return null
  const kept = known.find((p) => samePattern(p, pattern) && p.style === style)
  if (kept)
    return (
      <Text size="xs" c="dimmed">
        {t('pattern.kept', { name: kept.name })}
      </Text>
    )
  const own = name.trim()
  const before = known.find((p) => p.name === own && p.style === style)
  const keep = async () => {
    try {
      await keepPattern({ ...pattern, id: before?.id ?? newId(), name: own, style })
      setName('')
      setFault(undefined)
    } catch (error) {
      setFault(errorWords(t, error))
    }
  }
  return (
    <Group gap={6} align="flex-end" wrap="nowrap">
      <TextInput
        size="xs"
        flex={1}
        label={t('pattern.keepAs')}
        maxLength={60}
        value={name}
        error={fault}
        onChange={(e) => setName(e.currentTarget.value)}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && own) void keep()
        }}
      />
      <Button size="xs" variant="default" disabled={!own} onClick={() => void keep()}>
        {t(before ? 'pattern.replace' : 'pattern.keep')}
      </Button>
    </Group>
  )
}
