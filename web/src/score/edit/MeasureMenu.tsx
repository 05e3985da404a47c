import { Button, Menu } from '@mantine/core'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import { clipOf } from '@velvet-porch/core/edit'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { MarkedMeasures } from '../sheet/selection.ts'
import { hold, useHeld } from './clipboard.ts'
import type { Writing } from './useWriting.ts'
import { FigureDialog } from './FigureDialog.tsx'

interface Props {
  readonly tune: TuneDoc
  readonly doc: ArrangementDoc | null | undefined
  readonly range: MarkedMeasures | undefined
  readonly numbers: readonly number[]
  readonly run: Writing['run']
}

/** Inserts, copies, moves and takes out whole measures, with everything in them. */
export function MeasureMenu({ tune, doc, range, numbers, run }: Props) {
  const { t } = useTranslation()
  const held = useHeld()
  const [asking, setAsking] = useState(false)
  const { from, to } = range ?? { from: 0, to: 0 }
  const count = to - from + 1
  const copy = () => hold(clipOf({ tune, ...(doc ? { arrangement: doc } : {}) }, from, to))
  const name = range
    ? count === 1
      ? t('write.measures.one', { number: numbers[from]! })
      : t('write.measures.many', { from: numbers[from]!, to: numbers[to]! })
    : t('write.measures.none')
  return (
    <>
      <Menu position="bottom-start" withinPortal>
        <Menu.Target>
          <Button size="compact-sm" variant="default">
            {t('write.measures.title')}
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Label>{name}</Menu.Label>
          <Menu.Item disabled={!range} onClick={() => void run({ do: 'insert', before: from, count: 1 })}>
            {t('write.measures.before')}
          </Menu.Item>
          <Menu.Item disabled={!range} onClick={() => void run({ do: 'insert', before: to + 1, count: 1 })}>
            {t('write.measures.after')}
          </Menu.Item>
          <Menu.Item onClick={() => void run({ do: 'insert', before: tune.measures.length, count: 4 })}>
            {t('write.measures.atEnd')}
          </Menu.Item>
          <Menu.Divider />
          <Menu.Item disabled={!range} onClick={copy}>
            {t('write.measures.copy', { count })}
          </Menu.Item>
          <Menu.Item
            disabled={!range || !held}
            onClick={() => held && void run({ do: 'paste', before: from, clip: held })}
          >
            {t('write.measures.pasteBefore')}
          </Menu.Item>
          <Menu.Item
            disabled={!range || !held}
            onClick={() => held && void run({ do: 'paste', before: to + 1, clip: held })}
          >
            {t('write.measures.pasteAfter')}
          </Menu.Item>
          {doc ? (
            <Menu.Item disabled={!range} onClick={() => setAsking(true)}>
              {t('write.measures.figure')}
            </Menu.Item>
          ) : null}
          <Menu.Divider />
          <Menu.Item
            disabled={!range || from === 0}
            onClick={() => void run({ do: 'move', from, to, before: from - 1 })}
          >
            {t('write.measures.earlier')}
          </Menu.Item>
          <Menu.Item
            disabled={!range || to + 1 >= tune.measures.length}
            onClick={() => void run({ do: 'move', from, to, before: to + 2 })}
          >
            {t('write.measures.later')}
          </Menu.Item>
          <Menu.Divider />
          <Menu.Item
            disabled={!range}
            color="red"
            onClick={() => {
              copy()
              void run({ do: 'delete', from, to })
            }}
          >
            {t('write.measures.delete', { count })}
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
      {asking && range ? (
        <FigureDialog range={range} name={name} run={run} onClose={() => setAsking(false)} />
      ) : null}
    </>
  )
}
