import { Anchor, Badge, Chip, Group, Select, Table, Text, TextInput } from '@mantine/core'
import { TUNE_STATUSES, type TuneStatus } from '@velvet-porch/core/studio'
import { Fragment, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { changeEntry } from '../../state/studio.ts'
import { useTuningText } from '../../ui/instrument/useTuningText.ts'
import { EntryForm } from './EntryForm.tsx'
import { useRepertoireRows, type RepertoireRow } from './useRepertoireRows.ts'
import css from './repertoire.module.css'

const VIEWS = ['title', 'status', 'key', 'tuning', 'capo', 'effort', 'lastPlayed', 'requests'] as const
type View = (typeof VIEWS)[number]

/** Every tune with its standing: idea to repertoire, whose it is, versions, who has it, who asked for it. */
export function RepertoirePage() {
  const { t } = useTranslation()
  const rows = useRepertoireRows()
  const [status, setStatus] = useState<TuneStatus | 'all'>('all')
  const [sought, setSought] = useState('')
  const [view, setView] = useState<View>('title')
  const [open, setOpen] = useState<string>()
  const nameOfTuning = useTuningText()
  const tuningText = ({ setup }: RepertoireRow) =>
    setup ? nameOfTuning(setup.instrument.kind, setup.tuning) : ''
  const capoOf = ({ setup }: RepertoireRow) => Math.max(0, ...(setup?.capo ?? []))
  const asked = (row: RepertoireRow) => new Set(row.entry.requests.map((r) => r.by)).size
  const by: Readonly<Record<View, (a: RepertoireRow, b: RepertoireRow) => number>> = {
    title: () => 0,
    status: (a, b) => TUNE_STATUSES.indexOf(b.entry.status) - TUNE_STATUSES.indexOf(a.entry.status),
    key: (a, b) => a.tune.key.localeCompare(b.tune.key),
    tuning: (a, b) => tuningText(a).localeCompare(tuningText(b)),
    capo: (a, b) => capoOf(a) - capoOf(b),
    effort: (a, b) => (a.effort ?? Infinity) - (b.effort ?? Infinity),
    lastPlayed: (a, b) => (a.entry.lastPlayed ?? '').localeCompare(b.entry.lastPlayed ?? ''),
    requests: (a, b) => asked(b) - asked(a),
  }
  const words = sought.trim().toLowerCase()
  const shown = rows
    .filter((r) => status === 'all' || r.entry.status === status)
    .filter((r) =>
      [
        r.tune.title,
        r.tune.composer ?? '',
        r.entry.source,
        ...r.entry.tags,
        ...r.who,
        ...r.entry.requests.map((q) => q.by),
      ]
        .join(' ')
        .toLowerCase()
        .includes(words),
    )
    .sort((a, b) => by[view](a, b) || a.tune.title.localeCompare(b.tune.title))
  return (
    <div className="reference">
      <div className="reference-title">
        <h1>{t('repertoire.title')}</h1>
        <TextInput
          aria-label={t('repertoire.find')}
          placeholder={t('repertoire.find')}
          value={sought}
          onChange={(event) => setSought(event.currentTarget.value)}
        />
        <Select
          w={190}
          aria-label={t('repertoire.view')}
          allowDeselect={false}
          value={view}
          data={VIEWS.map((value) => ({ value, label: t(`repertoire.views.${value}`) }))}
          onChange={(value) => value && setView(value)}
        />
      </div>
      <Chip.Group value={status} onChange={(value) => setStatus(value)}>
        <Group gap={6} role="group" aria-label={t('repertoire.which')}>
          {(['all', ...TUNE_STATUSES] as const).map((value) => (
            <Chip key={value} value={value} size="sm">
              {t(`repertoire.status.${value}`)}
            </Chip>
          ))}
        </Group>
      </Chip.Group>
      {shown.length === 0 ? <p className="soft">{t('repertoire.none')}</p> : null}
      <Table.ScrollContainer minWidth={820} mt="sm">
        <Table data-testid="repertoire">
          <Table.Thead>
            <Table.Tr>
              {(['tune', 'status', 'key', 'setup', 'effort', 'who', 'asked', 'played'] as const).map((c) => (
                <Table.Th key={c}>{t(`repertoire.column.${c}`)}</Table.Th>
              ))}
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {shown.map((row) => (
              <Fragment key={row.tune.id}>
                <Table.Tr>
                  <Table.Td>
                    <Anchor component={Link} to={`/tunes/${row.tune.id}/arrange`} fw={600}>
                      {row.tune.title}
                    </Anchor>{' '}
                    {row.entry.tags.map((tag) => (
                      <Badge key={tag} variant="default" size="sm" className={css['repertoire-tag']}>
                        {tag}
                      </Badge>
                    ))}
                    <div>
                      <button
                        type="button"
                        className={css['repertoire-more']}
                        aria-label={t('repertoire.more', { title: row.tune.title })}
                        aria-expanded={open === row.tune.id}
                        onClick={() => setOpen(open === row.tune.id ? undefined : row.tune.id)}
                      >
                        {t(open === row.tune.id ? 'repertoire.less' : 'repertoire.moreShort')}
                      </button>
                    </div>
                  </Table.Td>
                  <Table.Td>
                    <Select
                      size="xs"
                      w={120}
                      aria-label={t('repertoire.statusOf', { title: row.tune.title })}
                      allowDeselect={false}
                      value={row.entry.status}
                      data={TUNE_STATUSES.map((value) => ({ value, label: t(`repertoire.status.${value}`) }))}
                      onChange={(value) => value && void changeEntry(row.tune.id, { status: value })}
                    />
                  </Table.Td>
                  <Table.Td>{row.tune.key}</Table.Td>
                  <Table.Td>
                    {row.setup ? (
                      <>
                        {t(`instrument.kinds.${row.setup.instrument.kind}`)}, {tuningText(row)}
                        {capoOf(row) > 0 ? `, ${t('sets.capoAt', { fret: capoOf(row) })}` : ''}
                      </>
                    ) : (
                      t('studio.noTab')
                    )}
                    {row.versions.length > 0 ? (
                      <div className="soft">
                        {t('repertoire.versions', { names: row.versions.join('; ') })}
                      </div>
                    ) : null}
                  </Table.Td>
                  <Table.Td>{row.effort === undefined ? '' : row.effort.toFixed(1)}</Table.Td>
                  <Table.Td>{row.who.join(', ')}</Table.Td>
                  <Table.Td>{asked(row) > 0 ? t('repertoire.askedBy', { count: asked(row) }) : ''}</Table.Td>
                  <Table.Td>{row.entry.lastPlayed ?? ''}</Table.Td>
                </Table.Tr>
                {open === row.tune.id ? (
                  <Table.Tr>
                    <Table.Td colSpan={8}>
                      <EntryForm row={row} />
                    </Table.Td>
                  </Table.Tr>
                ) : null}
              </Fragment>
            ))}
          </Table.Tbody>
        </Table>
      </Table.ScrollContainer>
      <Text size="sm" c="dimmed" mt="md">
        {t('repertoire.rightsHint')}
      </Text>
    </div>
  )
}
