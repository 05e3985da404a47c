import { Button, Group } from '@mantine/core'
import { IconPencil } from '@tabler/icons-react'
import type { TuneDoc } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { keysOf, type SheetModel } from '../../score/sheet/sheetModel.ts'
import { HistoryTools } from '../../ui/HistoryTools.tsx'
import { useNames } from '../../ui/names/useNames.ts'

interface Props {
  readonly tune: TuneDoc
  readonly model: SheetModel
  readonly writing: boolean
  /** Takes or lays down the pen; absent where the text cannot be read. */
  readonly onWrite: (() => void) | undefined
}

/** The tune's name and what it is in one line, with what can be done with it. */
export function TuneHead({ tune, model, writing, onWrite }: Props) {
  const { t } = useTranslation()
  const names = useNames()
  const tempo = tune.tempos[0]!
  return (
    <div className="bench-title">
      <h1>{tune.title}</h1>
      <span className="setup">
        {[
          tune.composer,
          keysOf(model, names).sounding,
          t('tune.measures', { count: tune.measures.length }),
          tempo.stated
            ? t('tune.tempo', { bpm: Math.round(tempo.bpm) })
            : t('tune.tempoUnstated', { bpm: tempo.bpm }),
        ]
          .filter(Boolean)
          .join(' · ')}
      </span>
      <Group gap={4} ml="auto" wrap="nowrap">
        <HistoryTools tuneId={tune.id} />
      </Group>
      <Button
        size="sm"
        variant={writing ? 'filled' : 'light'}
        leftSection={<IconPencil size={15} />}
        aria-pressed={writing}
        disabled={!onWrite}
        onClick={onWrite}
      >
        {t('write.open')}
      </Button>
      <Button component={Link} to={`/tunes/${tune.id}/arrange`} size="sm" data-guide="tab">
        {t('tune.arrange')}
      </Button>
    </div>
  )
}
