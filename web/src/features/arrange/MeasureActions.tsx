import { present } from '@velvet-porch/core/invariant'
import { ActionIcon, Menu } from '@mantine/core'
import {
  IconArrowMerge,
  IconDots,
  IconPencil,
  IconRepeat,
  IconRepeatOff,
  IconScissors,
} from '@tabler/icons-react'
import { joinRegion, regionAt, splitRegion, tidyRegions, type Region } from '@velvet-porch/core/document'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useActions } from '../../state/actions.ts'
import { useBenchPage, useSetBench } from './bench/BenchContext.ts'
import type { SheetPosition } from '../../score/sheet/sheetModel.ts'
import { holds } from '../../ui/holds.ts'

/** What can be done from a measure on: a section of its own, by parts, heard again and again, written by hand. */
export function MeasureActions({ position }: { position: SheetPosition }) {
  const { model, arranger, marked, writing } = useBenchPage()
  const onMark = useSetBench('marked')
  const onPosition = useSetBench('position')
  const { t } = useTranslation()
  const [opened, setOpened] = useState(false)
  useActions(
    useMemo(
      () => [{ id: 'measure', label: t('measureMenu.key'), keys: 'M', run: () => setOpened(true) }],
      [t],
    ),
  )
  const { tune, numbers } = model
  const { settings } = arranger
  const { measure } = position
  const number = numbers[measure]!
  const { id } = present(tune.measures[measure])
  const regions = settings?.regions ?? []
  const under = regionAt(tune, regions, id)
  const begins = regions[under]?.from === id
  const set = (label: string, change: (regions: readonly Region[]) => readonly Region[]) => {
    // The section that is begun is the one under the hand.
    onPosition(position)
    void arranger.choose(label, (now) => ({ regions: change(now.regions) }))
  }
  const looped = marked !== undefined && marked.from <= measure && measure <= marked.to
  return (
    <Menu opened={opened} onChange={setOpened} position="bottom-end" shadow="md" width={260} withinPortal>
      <Menu.Target>
        <ActionIcon
          variant="subtle"
          color="plum"
          {...holds([
            ...(settings && under >= 0 && !begins ? [t('sections.cut')] : []),
            ...(writing && !writing.on ? [t('measureMenu.write')] : []),
          ])}
          aria-label={number === 0 ? t('measureMenu.pickup') : t('measureMenu.title', { number })}
          title={`${t('measureMenu.key')} (M)`}
        >
          <IconDots size={18} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        {settings && under >= 0 && !begins ? (
          <Menu.Item
            leftSection={<IconScissors size={16} />}
            onClick={() => set(t('arrange.command.cut', { number }), (now) => splitRegion(tune, now, id))}
          >
            {t('sections.cut')}
          </Menu.Item>
        ) : null}
        {settings && begins && under > 0 ? (
          <Menu.Item
            leftSection={<IconArrowMerge size={16} />}
            onClick={() => set(t('arrange.command.join'), (now) => tidyRegions(tune, joinRegion(now, under)))}
          >
            {t('sections.join')}
          </Menu.Item>
        ) : null}
        {settings && regions.length === 1 && tune.sections.length > 1 ? (
          <Menu.Item
            leftSection={<IconScissors size={16} />}
            onClick={() =>
              set(t('arrange.command.cutParts'), (now) =>
                tune.sections.reduce<Region[]>((all, s) => splitRegion(tune, all, s.measure), [...now]),
              )
            }
          >
            {t('sections.byParts')}
          </Menu.Item>
        ) : null}
        <Menu.Item
          leftSection={looped ? <IconRepeatOff size={16} /> : <IconRepeat size={16} />}
          onClick={() => onMark(looped ? undefined : { from: measure, to: measure })}
        >
          {t(looped ? 'play.clear' : 'play.mark', { number })}
        </Menu.Item>
        {writing && !writing.on ? (
          <Menu.Item leftSection={<IconPencil size={16} />} onClick={writing.toggle}>
            {t('measureMenu.write')}
          </Menu.Item>
        ) : null}
      </Menu.Dropdown>
    </Menu>
  )
}
