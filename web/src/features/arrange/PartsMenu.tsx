import { Button, Menu } from '@mantine/core'
import { IconPlaylistAdd } from '@tabler/icons-react'
import type { TuneDoc } from '@velvet-porch/core/document'
import type { Instrument } from '@velvet-porch/core/instrument'
import { addPart, buildUp, type AddedPart } from '@velvet-porch/core/edit'
import { useTranslation } from 'react-i18next'
import type { SheetPosition } from '../../score/sheet/sheetModel.ts'
import type { BenchArranger } from './useArranger.ts'

interface Props {
  readonly tune: TuneDoc
  readonly numbers: readonly number[]
  readonly arranger: BenchArranger
  readonly position: SheetPosition | undefined
  readonly instrument: Pick<Instrument, 'strings'>
}

/** Adds what leads in, leads back and says the end once more, and lets a tune build; each a section of its own. */
export function PartsMenu({ tune, numbers, arranger, position, instrument }: Props) {
  const { t } = useTranslation()
  const add = (part: AddedPart, what: string) =>
    void arranger.reshape(t('parts.command', { what }), (now) =>
      addPart(
        now,
        part,
        {
          intro: t('parts.intro'),
          turnaround: t('parts.turnaround'),
          again: t('parts.again'),
          tag: t('parts.tag'),
        },
        instrument,
      ),
    )
  const item = (part: AddedPart, what: string) => (
    <Menu.Item onClick={() => add(part, what)}>{what}</Menu.Item>
  )
  const at = position?.measure
  const canBuild = tune.sections.length > 1
  return (
    <Menu position="bottom-start" withinPortal={false} shadow="md" width={280}>
      <Menu.Target>
        <Button size="compact-xs" h={28} variant="default" leftSection={<IconPlaylistAdd size={16} />}>
          {t('parts.title')}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Label>{t('parts.introHead')}</Menu.Label>
        {item({ kind: 'intro', from: 'phrase' }, t('parts.introPhrase'))}
        {item({ kind: 'intro', from: 'pedal' }, t('parts.introPedal'))}
        {item({ kind: 'intro', from: 'turnaround' }, t('parts.introTurnaround'))}
        <Menu.Label>{t('parts.betweenHead')}</Menu.Label>
        {at !== undefined && at > 0
          ? item({ kind: 'turnaround', before: at }, t('parts.turnaroundBefore', { number: numbers[at]! }))
          : null}
        {item({ kind: 'turnaround' }, t('parts.onceMore'))}
        <Menu.Label>{t('parts.endHead')}</Menu.Label>
        {item({ kind: 'tag' }, t('parts.addTag'))}
        <Menu.Label>{t('parts.wholeHead')}</Menu.Label>
        <Menu.Item
          disabled={!canBuild}
          onClick={() =>
            void arranger.choose(t('parts.command', { what: t('parts.build') }), (now) => ({
              regions: buildUp(tune, now.regions),
            }))
          }
        >
          {canBuild ? t('parts.build') : t('parts.buildNone')}
        </Menu.Item>
        <Menu.Label>{t('parts.hint')}</Menu.Label>
      </Menu.Dropdown>
    </Menu>
  )
}
