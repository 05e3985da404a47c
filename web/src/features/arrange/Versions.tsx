import { Button, CloseButton, Group, Stack, Text, TextInput } from '@mantine/core'
import type { ArrangementDoc, Id } from '@velvet-porch/core/document'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { dropVersion, keepVersion, takeVersion, useVersions } from '../../state/versions.ts'

/** Names that most teachers need. */
const USUAL = ['easy', 'full', 'stage'] as const

/** Versions of the arrangement by name: keep what stands on the bench, take one to it, look at two side by side. */
export function Versions({
  tuneId,
  mayKeep,
  beside,
  onBeside,
  onLook,
}: {
  tuneId: Id
  /** False where nothing is on the bench yet. */
  mayKeep: boolean
  /** The version that is shown beside the bench's. */
  beside: Id | undefined
  onBeside: (version: Id | undefined) => void
  /** A version is shown in the bench's place before it is taken. */
  onLook: (version: ArrangementDoc | undefined) => void
}) {
  const { t } = useTranslation()
  const versions = useVersions(tuneId)
  const [name, setName] = useState('')
  const keep = (as: string) => {
    const wanted = as.trim()
    if (wanted === '' || !mayKeep) return
    setName('')
    void keepVersion(tuneId, wanted)
  }
  return (
    <Stack gap={8} w={340} data-testid="versions" role="group" aria-label={t('versions.title')}>
      <Text size="sm" fw={600}>
        {t('versions.title')}
      </Text>
      <Text size="sm">{t('versions.hint')}</Text>
      {versions.map((v) => (
        <Row
          key={v.id}
          version={v}
          shown={beside === v.id}
          onShow={() => onBeside(beside === v.id ? undefined : v.id)}
          onTake={() => {
            onLook(undefined)
            void takeVersion(tuneId, t('versions.took', { name: v.name }), v)
          }}
          onLook={(on) => onLook(on ? v : undefined)}
          onDrop={() => {
            if (beside === v.id) onBeside(undefined)
            void dropVersion(v)
          }}
        />
      ))}
      <form
        onSubmit={(event) => {
          event.preventDefault()
          keep(name)
        }}
      >
        <Group gap={6} align="end" wrap="nowrap">
          <TextInput
            size="xs"
            style={{ flex: 1 }}
            label={t('versions.name')}
            maxLength={60}
            value={name}
            onChange={(e) => setName(e.currentTarget.value)}
          />
          <Button type="submit" size="xs" disabled={!mayKeep || name.trim() === ''}>
            {t('versions.keep')}
          </Button>
        </Group>
      </form>
      <Group gap={6}>
        {USUAL.map((usual) => (
          <Button
            key={usual}
            size="compact-xs"
            variant="default"
            disabled={!mayKeep}
            onClick={() => keep(t(`versions.usual.${usual}`))}
          >
            {t('versions.keepAs', { name: t(`versions.usual.${usual}`) })}
          </Button>
        ))}
      </Group>
    </Stack>
  )
}

function Row({
  version,
  shown,
  onShow,
  onTake,
  onLook,
  onDrop,
}: {
  version: ArrangementDoc
  shown: boolean
  onShow: () => void
  onTake: () => void
  /** It is looked at before it is taken, or no more. */
  onLook: (on: boolean) => void
  onDrop: () => void
}) {
  const { t } = useTranslation()
  const { name } = version
  return (
    <Group gap={6} wrap="nowrap" role="group" aria-label={name}>
      <Text size="sm" fw={600} style={{ flex: 1 }} truncate>
        {name}
      </Text>
      <Button size="compact-xs" variant={shown ? 'filled' : 'default'} aria-pressed={shown} onClick={onShow}>
        {t('versions.beside')}
      </Button>
      <Button
        size="compact-xs"
        variant="default"
        onPointerEnter={() => onLook(true)}
        onPointerLeave={() => onLook(false)}
        onFocus={() => onLook(true)}
        onBlur={() => onLook(false)}
        onClick={onTake}
      >
        {t('versions.take')}
      </Button>
      <CloseButton size="sm" aria-label={t('versions.drop', { name })} onClick={onDrop} />
    </Group>
  )
}
