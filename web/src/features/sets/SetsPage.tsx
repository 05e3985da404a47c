import { Button, Group, NavLink, Text, TextInput } from '@mantine/core'
import { IconPlus } from '@tabler/icons-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate, useParams } from 'react-router'
import { newId } from '../../newId.ts'
import { keepSet, useSets } from '../../state/studio.ts'
import { SetView } from './SetView.tsx'
import css from './sets.module.css'

/** Set lists: the tunes of a gig or a class, in an order in which nobody retunes twice. */
export function SetsPage() {
  const { t } = useTranslation()
  const { set: id } = useParams()
  const go = useNavigate()
  const sets = useSets()
  const chosen = sets?.find((s) => s.id === id) ?? (id === undefined ? sets?.[0] : undefined)
  const [name, setName] = useState('')
  const add = async () => {
    const own = newId()
    await keepSet({ id: own, name: name.trim() || t('sets.untitled'), items: [] })
    setName('')
    void go(`/sets/${own}`)
  }
  return (
    <div className="reference">
      <div className="reference-title">
        <h1>{t('sets.title')}</h1>
      </div>
      <div className={css['set-page']}>
        <nav aria-label={t('sets.all')}>
          {sets?.map((s) => (
            <NavLink
              key={s.id}
              component={Link}
              to={`/sets/${s.id}`}
              active={s.id === chosen?.id}
              label={s.name}
              description={t('sets.count', { count: s.items.length })}
            />
          ))}
          <form
            onSubmit={(event) => {
              event.preventDefault()
              void add()
            }}
          >
            <Group gap="xs" mt="xs" wrap="nowrap">
              <TextInput
                aria-label={t('sets.name')}
                placeholder={t('sets.name')}
                value={name}
                onChange={(event) => setName(event.currentTarget.value)}
              />
              <Button type="submit" variant="default" leftSection={<IconPlus size={16} />}>
                {t('sets.add')}
              </Button>
            </Group>
          </form>
        </nav>
        {chosen ? (
          <SetView key={chosen.id} set={chosen} />
        ) : sets ? (
          <Text c="dimmed">{t(sets.length === 0 ? 'sets.none' : 'sets.unknown')}</Text>
        ) : null}
      </div>
    </div>
  )
}
