import { Button, Group, Text, TextInput, Title } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { IconFiles, IconSearch, IconTrash } from '@tabler/icons-react'
import {
  Suspense,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { useActions } from '../../state/actions.ts'
import { db, type ShelfRow } from '../../state/db.ts'
import { beginGuide } from '../../state/guide.ts'
import { noteShelfStep } from '../../state/shelfSteps.ts'
import { useStorageTrouble } from '../../state/storageTrouble.ts'
import { useStored } from '../../state/useStored.ts'
import { bringStages } from '../../texts/i18n.ts'
import { broughtWithTexts } from '../../ui/brought.ts'
import { onceOpened } from '../../ui/onceOpened.tsx'
import { Archive } from './Archive.tsx'
import type { Source } from './intake.ts'
import { ShelfTable } from './ShelfTable.tsx'
import { useArrive } from './useArrive.ts'
import { useFileDrop } from './useFileDrop.ts'
import { useShelfUndo } from './useShelfUndo.ts'
import { WaysIn } from './WaysIn.tsx'
import css from './ShelfPage.module.css'
import shelfCss from './shelf.module.css'

/** Eight empty measures to be written on. */
const blankPage = (title: string) =>
  `X:1\nT:${title}\nM:4/4\nL:1/8\nQ:1/4=100\nK:C\nz8 | z8 | z8 | z8 |\nz8 | z8 | z8 | z8 |]\n`

const BinDialog = onceOpened(async () => (await import('./BinDialog.tsx')).BinDialog)

const FormDialog = onceOpened(async () => (await import('./FormDialog.tsx')).FormDialog)

const IntakeDialog = broughtWithTexts(async () => (await import('./IntakeDialog.tsx')).IntakeDialog)

const SaveManyDialog = broughtWithTexts(
  async () => (await import('./many/SaveManyDialog.tsx')).SaveManyDialog,
)

const PlayInDialog = broughtWithTexts(async () => (await import('../playIn/PlayInDialog.tsx')).PlayInDialog)

/** Reading comes with its code, and the words for what is wrong, when something is brought. */
const reading = async () => (await Promise.all([import('./intake.ts'), bringStages()]))[0]
const takeText = async (text: string) => (await reading()).takeText(text)

/** What is being looked at before it is taken: files, or a text that is pasted. */
interface Bringing {
  readonly files: readonly Source[] | undefined
  readonly unopened: readonly string[]
  readonly remarks: readonly string[]
}

const PASTED: Bringing = { files: undefined, unopened: [], remarks: [] }

/** The list of tunes, and the ways in: drop, open, paste, archive, demo. */
export function ShelfPage({ onEmpty }: { onEmpty: () => void }) {
  const { t } = useTranslation()
  const go = useNavigate()
  const [bringing, setBringing] = useState<Bringing>()
  const [forming, setForming] = useState(false)
  const [playingIn, setPlayingIn] = useState(false)
  const picker = useRef<HTMLInputElement>(null)
  const all = useStored(() => db.shelf.orderBy('changedAt').reverse().toArray())
  const trouble = useStorageTrouble()
  // Where storage cannot be read the shelf is empty, and said to be so above it.
  const rows = useMemo(
    () => all?.filter((r) => r.removedAt === undefined) ?? (trouble ? [] : undefined),
    [all, trouble],
  )
  const inBin = (all?.length ?? 0) - (rows?.length ?? 0)
  const [binOpen, setBinOpen] = useState(false)
  const arrive = useArrive()
  const undo = useShelfUndo()
  const open = async (files: readonly File[]) => {
    const texts = await (await reading()).textsOf(files)
    setBringing({
      files: texts.flatMap((f) => ('source' in f ? [f.source] : [])),
      unopened: texts.flatMap((f) => ('complaint' in f ? [f.complaint] : [])),
      remarks: texts.flatMap((f) => ('note' in f && f.note ? [f.note] : [])),
    })
  }
  const dropping = useFileDrop((files) => void open(files))
  const demo = useCallback(async () => {
    const [{ takeDemo }, { DEMO_SET }] = await Promise.all([
      import('./demo/takeDemo.ts'),
      import('./demo/demoSettings.ts'),
    ])
    const { first, fresh, count, song } = await takeDemo()
    const set = { set: DEMO_SET }
    notifications.show({
      message: count === 0 ? t('shelf.demoThere', set) : t('shelf.demoTaken', { count, ...set }),
    })
    void song
      .catch(() => [])
      .then((later) => {
        const ids = [...fresh, ...later]
        if (ids.length > 0) noteShelfStep({ kind: 'add', ids, title: DEMO_SET })
      })
    void go(`/tunes/${first}/arrange`)
  }, [go, t])
  const writeNew = useCallback(async () => {
    const intake = await takeText(blankPage(t('shelf.newTitle')))
    const [tune] = intake.tunes
    if (tune) {
      noteShelfStep({ kind: 'add', ids: [tune.id], title: tune.title })
      void go(`/tunes/${tune.id}/tune?write`)
    } else arrive(intake)
  }, [go, t, arrive])
  useActions(
    useMemo(
      () => [
        { id: 'new', label: t('shelf.newTune'), keys: 'N', run: () => void writeNew() },
        { id: 'open', label: t('shelf.open'), keys: 'O', run: () => picker.current?.click() },
        { id: 'paste', label: t('shelf.paste'), keys: 'P', run: () => setBringing(PASTED) },
        { id: 'playIn', label: t('shelf.playIn'), run: () => setPlayingIn(true) },
        { id: 'form', label: t('form.button'), run: () => setForming(true) },
        { id: 'demo', label: t('shelf.demo'), keys: 'D', run: () => void demo() },
        { id: 'shelf.undo', label: t('shelf.undoKey'), keys: 'Mod+Z', run: () => void undo() },
        { id: 'bin', label: t('shelf.bin.title'), run: () => setBinOpen(true) },
      ],
      [t, demo, writeNew, undo],
    ),
  )
  const empty = rows?.length === 0
  const ways = (
    <WaysIn
      read={rows !== undefined}
      empty={empty}
      onDemo={() => void demo()}
      onNew={() => void writeNew()}
      onPaste={() => setBringing(PASTED)}
      onForm={() => setForming(true)}
      onPlayIn={() => setPlayingIn(true)}
      onOpen={() => picker.current?.click()}
    />
  )
  return (
    <div className={css.shelf}>
      {dropping ? <div className={css['drop-veil']}>{t('shelf.drop')}</div> : null}
      <input
        ref={picker}
        type="file"
        multiple
        hidden
        data-testid="file"
        onChange={(e) => {
          const files = [...(e.currentTarget.files ?? [])]
          e.currentTarget.value = ''
          void open(files)
        }}
      />
      {empty ? <EmptyShelf ways={ways} onEmpty={onEmpty} /> : <Tunes rows={rows} ways={ways} />}
      {inBin > 0 ? (
        <Button
          variant="subtle"
          mt="sm"
          leftSection={<IconTrash size={16} />}
          onClick={() => setBinOpen(true)}
        >
          {t('shelf.bin.button', { count: inBin })}
        </Button>
      ) : null}
      <BinDialog opened={binOpen} onClose={() => setBinOpen(false)} />
      <Archive onTake={async (abc) => arrive(await takeText(abc))} />
      <FormDialog
        opened={forming}
        onClose={() => setForming(false)}
        onMake={async (abc) => {
          setForming(false)
          arrive(await takeText(abc))
        }}
      />
      {playingIn ? (
        <Suspense>
          <PlayInDialog
            onClose={() => setPlayingIn(false)}
            onTake={async (score) => {
              const intake = await (await reading()).take([{ ...score, problems: [] }])
              setPlayingIn(false)
              arrive(intake)
            }}
          />
        </Suspense>
      ) : null}
      {bringing ? (
        <Suspense>
          <IntakeDialog
            key={bringing.files?.map((f) => f.file).join('/') ?? 'pasted'}
            {...bringing}
            onClose={() => setBringing(undefined)}
            onTaken={(intake) => {
              setBringing(undefined)
              arrive(intake)
            }}
          />
        </Suspense>
      ) : null}
    </div>
  )
}

/** What stands where nothing is on the shelf yet. */
function EmptyShelf({ ways, onEmpty }: { ways: ReactNode; onEmpty: () => void }) {
  const { t } = useTranslation()
  useEffect(beginGuide, [])
  useEffect(onEmpty, [onEmpty])
  return (
    <section className={css['shelf-empty']}>
      <Title order={1}>{t('shelf.emptyTitle')}</Title>
      <Text my="md" maw={520} mx="auto" c="dimmed">
        {t('shelf.emptyText')}
      </Text>
      <Text my="md" maw={520} mx="auto" c="dimmed">
        {t('shelf.emptyLead')}
      </Text>
      {ways}
      <Text size="sm" c="dimmed" mt="md">
        {t('shelf.dropHint')}
      </Text>
    </section>
  )
}

/** The tunes, and the field that finds one; `rows` is undefined while they are being read. */
function Tunes({ rows, ways }: { rows: readonly ShelfRow[] | undefined; ways: ReactNode }) {
  const { t } = useTranslation()
  const [search, setSearch] = useState('')
  const [saving, setSaving] = useState(false)
  const named = useMemo(
    () =>
      rows?.map((row) => ({
        row,
        names: `${row.title} ${row.composer ?? ''} ${row.set ?? ''}`.toLowerCase(),
      })),
    [rows],
  )
  // What is typed stands at once, also where thousands are looked through.
  const sought = useDeferredValue(search.trim().toLowerCase())
  const found = useMemo(
    () => (named ?? []).flatMap(({ row, names }) => (names.includes(sought) ? [row] : [])),
    [named, sought],
  )
  return (
    <>
      <Group justify="space-between" align="end" mb="lg">
        <div>
          <Title order={1}>{t('shelf.title')}</Title>
          <Text c="dimmed">
            {rows ? t('shelf.count', { count: rows.length }) : t('shelf.subtitle')}{' '}
            <span className={shelfCss['wide-only']}>· {t('shelf.dropHint')}</span>
          </Text>
        </div>
        {ways}
      </Group>
      <TextInput
        leftSection={<IconSearch size={16} />}
        aria-label={t('shelf.search')}
        placeholder={t('shelf.search')}
        value={search}
        onChange={(e) => setSearch(e.currentTarget.value)}
        maw={360}
        mb="sm"
      />
      {rows && found.length === 0 ? <Text py="md">{t('shelf.nothing')}</Text> : <ShelfTable rows={found} />}
      {found.length > 0 ? (
        <Button
          variant="subtle"
          mt="sm"
          leftSection={<IconFiles size={16} />}
          onClick={() => setSaving(true)}
        >
          {t('shelf.saveMany', { count: found.length })}
        </Button>
      ) : null}
      {saving ? (
        <Suspense>
          <SaveManyDialog rows={found} onClose={() => setSaving(false)} />
        </Suspense>
      ) : null}
    </>
  )
}
