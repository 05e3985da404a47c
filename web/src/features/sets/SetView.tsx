import { ActionIcon, Anchor, Button, Group, Modal, NumberInput, Select, Text, TextInput } from '@mantine/core'
import {
  IconArrowDown,
  IconArrowUp,
  IconArrowsSort,
  IconBook2,
  IconPresentation,
  IconTrash,
  IconX,
} from '@tabler/icons-react'
import { knownIn } from '@velvet-porch/core/invariant'
import {
  movesOf,
  secondsOfMoves,
  secondsOfOrder,
  setOrder,
  type SetItem,
  type SetList,
  type SetMove,
} from '@velvet-porch/core/studio'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate } from 'react-router'
import { changeSet, dropSet } from '../../state/studio.ts'
import { useShelf } from '../../state/useShelf.ts'
import { OnStage } from './OnStage.tsx'
import { useMoveWords } from './useMoveWords.ts'
import { useSetTunes, type ShownTune } from './useSetTunes.ts'
import css from './sets.module.css'

/** One set list: its tunes in order, what is done between them, and the order that saves the most. */
export function SetView({ set }: { set: SetList }) {
  const { t } = useTranslation()
  const go = useNavigate()
  const tunes = useSetTunes(set)
  const [onStage, setOnStage] = useState(false)
  const [ordered, setOrdered] = useState<{
    readonly before: number
    readonly after: number
    readonly exact: boolean
  }>()
  const shelf = useShelf()
  if (!tunes) return null
  const keep = (part: Partial<SetList>) => {
    setOrdered(undefined)
    return changeSet(set.id, (now) => ({ ...now, ...part }))
  }
  const keepItems: KeepItems = (change) => {
    setOrdered(undefined)
    return changeSet(set.id, (now) => ({ ...now, items: change(now.items) }))
  }
  const moves = movesOf(tunes)
  const order = async () => {
    let said: typeof ordered
    await changeSet(set.id, (now) => {
      const items = new Map(now.items.map((item) => [item.tuneId, item]))
      const there = now.items.flatMap(({ tuneId }) => tunes.find((tune) => tune.id === tuneId) ?? [])
      const { order, seconds, exact } = setOrder(there, now)
      said = { before: secondsOfOrder(there), after: seconds, exact }
      return { ...now, items: order.map((tune) => knownIn(items, tune.id)) }
    })
    setOrdered(said)
  }
  const minutes = tunes.reduce((sum, tune) => sum + tune.minutes, 0)
  const spent = secondsOfOrder(tunes)
  const there = new Set(set.items.map((item) => item.tuneId))
  return (
    <section aria-label={set.name} data-testid="set">
      <Group gap="xs" align="flex-end">
        <TextInput
          label={t('sets.name')}
          defaultValue={set.name}
          onBlur={(event) => void keep({ name: event.currentTarget.value.slice(0, 200) })}
        />
        <Button
          leftSection={<IconArrowsSort size={17} />}
          disabled={tunes.length < 2}
          onClick={() => void order()}
        >
          {t('sets.order')}
        </Button>
        <Button
          variant="default"
          leftSection={<IconPresentation size={17} />}
          disabled={tunes.length === 0}
          onClick={() => setOnStage(true)}
        >
          {t('sets.stage')}
        </Button>
        <Button
          component={Link}
          to={`/sets/${set.id}/book`}
          variant="default"
          leftSection={<IconBook2 size={17} />}
          disabled={tunes.length === 0}
        >
          {t('sets.book.open')}
        </Button>
        <ActionIcon
          size="lg"
          variant="subtle"
          color="red"
          aria-label={t('sets.drop', { name: set.name })}
          onClick={() => void dropSet(set.id).then(() => go('/sets'))}
        >
          <IconTrash size={18} />
        </ActionIcon>
      </Group>
      <Text mt="sm" data-testid="set-sum">
        {t('sets.sum', { count: tunes.length, minutes, seconds: spent })}
      </Text>
      {ordered ? (
        <Text role="status" data-testid="set-ordered">
          {ordered.after < ordered.before
            ? t('sets.saved', { before: ordered.before, after: ordered.after })
            : t('sets.wasBest')}{' '}
          {t(ordered.exact ? 'sets.exact' : 'sets.found')}
        </Text>
      ) : null}
      <ol className={css['set-set']}>
        {tunes.map((tune, i) => (
          <SetRow key={tune.id} {...{ set, tune, keepItems }} index={i} moves={moves[i]!} />
        ))}
      </ol>
      <Group gap="xs" mt="sm">
        <Select
          w={280}
          searchable
          aria-label={t('sets.addTune')}
          placeholder={t('sets.addTune')}
          value={null}
          data={shelf.filter((row) => !there.has(row.id)).map((row) => ({ value: row.id, label: row.title }))}
          onChange={(tuneId) => {
            if (tuneId) void keepItems((items) => [...items, { tuneId }])
          }}
        />
      </Group>
      <Modal
        opened={onStage}
        onClose={() => setOnStage(false)}
        fullScreen
        title={set.name}
        closeButtonProps={{ 'aria-label': t('sets.leaveStage') }}
      >
        <OnStage tunes={tunes} moves={moves} />
      </Modal>
    </section>
  )
}

/** Changes the tunes of a set list as they stand in storage. */
type KeepItems = (change: (items: readonly SetItem[]) => readonly SetItem[]) => Promise<void>

interface RowProps {
  readonly set: SetList
  readonly tune: ShownTune
  readonly index: number
  readonly moves: readonly SetMove[]
  readonly keepItems: KeepItems
}

function SetRow({ set, tune, index, moves, keepItems }: RowProps) {
  const { t } = useTranslation()
  const { moveText, setupText } = useMoveWords()
  const { title, id } = tune
  const move = (by: 1 | -1) =>
    void keepItems((items) => {
      const at = items.findIndex((item) => item.tuneId === id)
      const item = items[at]
      return item && items[at + by] ? items.toSpliced(at, 1).toSpliced(at + by, 0, item) : items
    })
  const end = set.first === id ? 'first' : set.last === id ? 'last' : 'any'
  const pin = (to: string | null) => {
    void changeSet(set.id, ({ first, last, ...rest }) => {
      const opens = to === 'first' ? id : first === id ? undefined : first
      const closes = to === 'last' ? id : last === id ? undefined : last
      return { ...rest, ...(opens ? { first: opens } : {}), ...(closes ? { last: closes } : {}) }
    })
  }
  return (
    <li>
      {moves.length > 0 ? (
        <div className={css['set-moves']} data-testid="moves">
          {moves.map(moveText).join(' · ')}{' '}
          <span className="soft">{t('sets.about', { seconds: secondsOfMoves(moves) })}</span>
        </div>
      ) : null}
      <div className={css['set-tune']}>
        <span className={css['set-number']}>{index + 1}</span>
        <div className={css['set-title']}>
          <Anchor component={Link} to={`/tunes/${id}/arrange`}>
            {tune.gone ? t('sets.gone', { title }) : title}
          </Anchor>
          <div className="soft">{setupText(tune)}</div>
        </div>
        <Select
          size="xs"
          w={110}
          aria-label={t('sets.place', { title })}
          allowDeselect={false}
          value={end}
          data={(['any', 'first', 'last'] as const).map((value) => ({
            value,
            label: t(`sets.places.${value}`),
          }))}
          onChange={pin}
        />
        <NumberInput
          size="xs"
          w={90}
          min={0}
          max={480}
          step={0.5}
          suffix={t('sets.min')}
          aria-label={t('sets.minutesOf', { title })}
          value={tune.minutes}
          onChange={(value) => {
            const minutes = Math.min(480, Math.max(0, Number(value)))
            if (minutes !== tune.minutes)
              void keepItems((items) =>
                items.map((item) => (item.tuneId === id ? { ...item, minutes } : item)),
              )
          }}
        />
        <ActionIcon
          variant="subtle"
          disabled={index === 0}
          aria-label={t('sets.earlier', { title })}
          onClick={() => move(-1)}
        >
          <IconArrowUp size={17} />
        </ActionIcon>
        <ActionIcon
          variant="subtle"
          disabled={index === set.items.length - 1}
          aria-label={t('sets.later', { title })}
          onClick={() => move(1)}
        >
          <IconArrowDown size={17} />
        </ActionIcon>
        <ActionIcon
          variant="subtle"
          color="red"
          aria-label={t('sets.takeOut', { title })}
          onClick={() => void keepItems((items) => items.filter((item) => item.tuneId !== id))}
        >
          <IconX size={17} />
        </ActionIcon>
      </div>
    </li>
  )
}
