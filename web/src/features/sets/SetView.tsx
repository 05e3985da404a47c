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
import { dropSet, keepSet } from '../../state/studio.ts'
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
    return keepSet({ ...set, ...part })
  }
  const moves = movesOf(tunes)
  const order = async () => {
    const ends = { ...(set.first ? { first: set.first } : {}), ...(set.last ? { last: set.last } : {}) }
    const best = setOrder(tunes, ends)
    const before = secondsOfOrder(tunes)
    await keep({ items: best.order.map((tune) => itemOf(set, tune.id)) })
    setOrdered({ before, after: best.seconds, exact: best.exact })
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
          <SetRow key={tune.id} {...{ set, tune, keep }} index={i} moves={moves[i]!} />
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
            if (tuneId) void keep({ items: [...set.items, { tuneId }] })
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

const itemOf = (set: SetList, tuneId: string): SetItem =>
  set.items.find((item) => item.tuneId === tuneId) ?? { tuneId }

interface RowProps {
  readonly set: SetList
  readonly tune: ShownTune
  readonly index: number
  readonly moves: readonly SetMove[]
  readonly keep: (part: Partial<SetList>) => Promise<unknown>
}

function SetRow({ set, tune, index, moves, keep }: RowProps) {
  const { t } = useTranslation()
  const { moveText, setupText } = useMoveWords()
  const { items } = set
  const swap = (other: number) =>
    void keep({ items: items.with(index, items[other]!).with(other, items[index]!) })
  const { title, id } = tune
  const end = set.first === id ? 'first' : set.last === id ? 'last' : 'any'
  const pin = (to: string | null) => {
    const { first, last, ...rest } = set
    const opens = to === 'first' ? id : first === id ? undefined : first
    const closes = to === 'last' ? id : last === id ? undefined : last
    void keepSet({ ...rest, ...(opens ? { first: opens } : {}), ...(closes ? { last: closes } : {}) })
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
              void keep({ items: items.with(index, { ...items[index]!, minutes }) })
          }}
        />
        <ActionIcon
          variant="subtle"
          disabled={index === 0}
          aria-label={t('sets.earlier', { title })}
          onClick={() => swap(index - 1)}
        >
          <IconArrowUp size={17} />
        </ActionIcon>
        <ActionIcon
          variant="subtle"
          disabled={index === items.length - 1}
          aria-label={t('sets.later', { title })}
          onClick={() => swap(index + 1)}
        >
          <IconArrowDown size={17} />
        </ActionIcon>
        <ActionIcon
          variant="subtle"
          color="red"
          aria-label={t('sets.takeOut', { title })}
          onClick={() => void keep({ items: items.toSpliced(index, 1) })}
        >
          <IconX size={17} />
        </ActionIcon>
      </div>
    </li>
  )
}
