import { Anchor, Button, Group, Select, TagsInput, TextInput } from '@mantine/core'
import { RIGHTS, type RepertoireEntry } from '@velvet-porch/core/studio'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { changeEntry, today, useStudents } from '../../state/studio.ts'
import type { RepertoireRow } from './useRepertoireRows.ts'
import css from './repertoire.module.css'

/** What is kept of one tune: source, rights, tags, who asked for it and when it was played. */
export function EntryForm({ row }: { row: RepertoireRow }) {
  const { t } = useTranslation()
  const students = useStudents()
  const { tune, entry } = row
  const [by, setBy] = useState('')
  const change = (part: Partial<RepertoireEntry>) => void changeEntry(tune.id, part)
  const ask = () => {
    const name = by.trim().slice(0, 120)
    if (name === '') return
    change({ requests: [...entry.requests, { by: name, day: today() }] })
    setBy('')
  }
  return (
    <div className={css['repertoire-form']}>
      <TextInput
        label={t('repertoire.source')}
        defaultValue={entry.source}
        maxLength={4000}
        onBlur={(event) => change({ source: event.currentTarget.value })}
      />
      <Select
        label={t('repertoire.rights')}
        allowDeselect={false}
        value={entry.rights}
        data={RIGHTS.map((value) => ({ value, label: t(`repertoire.right.${value}`) }))}
        onChange={(rights) => rights && change({ rights })}
      />
      <TagsInput
        label={t('repertoire.tags')}
        maxTags={40}
        value={[...entry.tags]}
        onChange={(tags) => change({ tags: tags.map((tag) => tag.slice(0, 60)) })}
      />
      <form
        onSubmit={(event) => {
          event.preventDefault()
          ask()
        }}
      >
        <Group gap="xs" align="flex-end">
          <TextInput
            label={t('repertoire.askedFor')}
            value={by}
            list={`askers-${tune.id}`}
            onChange={(event) => setBy(event.currentTarget.value)}
          />
          <datalist id={`askers-${tune.id}`}>
            {students.map((s) => (
              <option key={s.hand.id} value={s.hand.name} />
            ))}
          </datalist>
          <Button type="submit" variant="default">
            {t('repertoire.note')}
          </Button>
        </Group>
      </form>
      <div>
        {entry.requests.map((r, i) => (
          <div key={i}>
            {r.by}, {r.day}{' '}
            <button
              type="button"
              className={css['repertoire-more']}
              onClick={() => change({ requests: entry.requests.toSpliced(i, 1) })}
            >
              {t('repertoire.forget', { name: r.by })}
            </button>
          </div>
        ))}
      </div>
      <Group gap="xs" align="flex-end">
        <Button variant="default" onClick={() => change({ lastPlayed: today() })}>
          {t('repertoire.playedToday')}
        </Button>
        <Anchor component={Link} to={`/tunes/${tune.id}/tune`} size="sm">
          {t('repertoire.departures')}
        </Anchor>
      </Group>
    </div>
  )
}
