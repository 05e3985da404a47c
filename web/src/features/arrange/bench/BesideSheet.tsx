import { Button, CloseButton, Group, Text } from '@mantine/core'
import { IconEar } from '@tabler/icons-react'
import type { ArrangementDoc } from '@velvet-porch/core/document'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import css from './BesideSheet.module.css'

interface Props {
  readonly version: ArrangementDoc
  /** Notes that are otherwise than in the other, on either side. */
  readonly changes: number
  /** Which of the two Play plays. */
  readonly heard: 'bench' | 'version'
  readonly onHear: (side: 'bench' | 'version') => void
  readonly onClose: () => void
  readonly bench: ReactNode
  readonly kept: ReactNode
}

/** The bench's arrangement and a kept version side by side: what differs is marked, and either is heard. */
export function BesideSheet({ version, changes, heard, onHear, onClose, bench, kept }: Props) {
  const { t } = useTranslation()
  const side = (which: 'bench' | 'version', title: string, sheet: ReactNode) => (
    <section aria-label={title} data-testid={`beside-${which}`}>
      <Group gap={8} mb={6} mih={30} wrap="nowrap">
        <Text fw={600} truncate>
          {title}
        </Text>
        <Button
          size="compact-xs"
          variant={heard === which ? 'filled' : 'default'}
          aria-pressed={heard === which}
          leftSection={<IconEar size={14} />}
          onClick={() => onHear(which)}
        >
          {t('versions.hear')}
        </Button>
        {which === 'version' ? (
          <CloseButton ml="auto" aria-label={t('versions.close')} onClick={onClose} />
        ) : (
          <Text size="sm" c="dimmed" ml="auto">
            {t('versions.differ', { count: changes })}
          </Text>
        )}
      </Group>
      {sheet}
    </section>
  )
  return (
    <div className={css['two-sheets']}>
      {side('bench', t('versions.onBench'), bench)}
      {side('version', version.name, kept)}
    </div>
  )
}
